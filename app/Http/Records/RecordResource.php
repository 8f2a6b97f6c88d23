<?php

declare(strict_types=1);

namespace App\Http\Records;

use App\Http\Describe\SaysObjects;
use OpenApi\Attributes as OA;

/** A record. Values are as the API takes them; shown is each as a person reads it. */
#[OA\Schema]
final readonly class RecordResource implements \JsonSerializable
{
    use SaysObjects;

    /**
     * @param  array<array-key, mixed>  $values
     * @param  array<array-key, mixed>  $shown
     * @param  array<array-key, mixed>  $handles
     * @param  list<string>  $may
     */
    public function __construct(
        #[OA\Property]
        public string $type,
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $number,
        #[OA\Property]
        public string $title,
        #[OA\Property]
        public int $version,
        #[
            OA\Property(
                type: 'object',
                additionalProperties: new OA\AdditionalProperties(
                    nullable: true,
                    oneOf: [new OA\Schema(type: 'string'), new OA\Schema(type: 'integer'), new OA\Schema(type: 'boolean')],
                ),
            ),
        ]
        public array $values,
        #[OA\Property(type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'string'))]
        public array $shown,
        #[
            OA\Property(
                description: 'The handle of each person in a field, whose id is among the values.',
                type: 'object',
                additionalProperties: new OA\AdditionalProperties(type: 'string'),
            ),
        ]
        public array $handles,
        #[OA\Property(description: 'Since when it has been at its stage.', format: 'date-time', nullable: true)]
        public ?string $stageSince = null,
        #[OA\Property(description: 'What whoever asks may do with it.', items: new OA\Items(type: 'string'))]
        public array $may = [],
    ) {
    }

    /**
     * The same with what stands in further columns of a list.
     *
     * @param  array<string, mixed>  $values
     * @param  array<string, string>  $shown
     */
    public function beside(array $values, array $shown): self
    {
        return new self(
            type: $this->type, id: $this->id, number: $this->number, title: $this->title, version: $this->version,
            values: [...$this->values, ...$values], shown: [...$this->shown, ...$shown], handles: $this->handles,
            stageSince: $this->stageSince, may: $this->may,
        );
    }
}

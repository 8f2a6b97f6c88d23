<?php

declare(strict_types=1);

namespace App\Http\Types;

use App\Http\Writing\OfferResource;
use OpenApi\Attributes as OA;

/** A record type with its fields. */
#[OA\Schema]
final readonly class TypeResource
{
    /**
     * @param  list<string>  $columns
     * @param  list<FieldResource>  $fields
     * @param  array<array-key, mixed>  $pieces
     * @param  list<OfferResource>  $retired
     * @param  list<string>  $may
     * @param  list<string>  $kept
     */
    public function __construct(
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public string $label,
        #[OA\Property]
        public string $plural,
        #[OA\Property]
        public string $prefix,
        #[OA\Property]
        public string $title,
        #[OA\Property]
        public string $owner,
        #[OA\Property(description: 'Names of the fields a list shows, in order.', items: new OA\Items(type: 'string'))]
        public array $columns,
        #[OA\Property(items: new OA\Items(type: FieldResource::class))]
        public array $fields,
        #[OA\Property(description: 'The choice that says how far a record has come.', nullable: true)]
        public ?string $stage = null,
        #[
            OA\Property(
                description: 'What a text merges besides fields: its number, and what changed.',
                items: new OA\Items(type: OfferResource::class),
            ),
        ]
        public array $pieces = [],
        #[OA\Property(description: 'Counts up with every change of the type or its fields.')]
        public int $version = 1,
        #[
            OA\Property(
                description: 'Fields that are asked for and shown nowhere; their values are kept.',
                items: new OA\Items(type: OfferResource::class),
            ),
        ]
        public array $retired = [],
        #[OA\Property(description: 'What whoever asks may do with some of its records.', items: new OA\Items(type: 'string'))]
        public array $may = [],
        #[OA\Property(description: 'Names of the fields that rules in force fill in.', items: new OA\Items(type: 'string'))]
        public array $kept = [],
        #[OA\Property(description: 'Whether a rule in force can be run on its records by hand.')]
        public bool $byHand = false,
    ) {
    }
}

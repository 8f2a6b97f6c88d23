<?php

declare(strict_types=1);

namespace App\Http\Writing;

use OpenApi\Attributes as OA;

/** How a word can be changed in place: which editor opens, and what it has to know. What is not said is false, or none. */
#[OA\Schema(required: ['sort', 'label'])]
final readonly class EditorResource implements \JsonSerializable
{
    /** @param  list<string>  $clears */
    public function __construct(
        #[OA\Property(enum: ['choose', 'value', 'text', 'number', 'form', 'formula', 'timetable', 'letter', 'begin'])]
        public string $sort,
        #[OA\Property]
        public string $label,
        #[OA\Property(description: 'Something else can be chosen instead.')]
        public bool $others,
        #[OA\Property]
        public bool $many,
        #[OA\Property(description: 'Keys beside the place that go when it changes.', items: new OA\Items(type: 'string'))]
        public array $clears,
        #[OA\Property(description: 'A text of several lines.')]
        public bool $isLong,
        #[OA\Property(description: 'Fields can be merged into the text.')]
        public bool $merges,
        #[OA\Property]
        public bool $mayBeEmpty,
        #[OA\Property]
        public ?int $least,
        #[OA\Property(description: 'The greatest number, or characters of a text.')]
        public ?int $most,
        #[OA\Property(description: 'A number that is kept as one, and not as text.')]
        public bool $isWhole,
        #[OA\Property(description: 'The record type whose field gives the values.')]
        public ?string $type,
        #[OA\Property]
        public ?string $field,
        #[OA\Property(description: 'Kind of the object that a value is put into.')]
        public ?string $wrap,
        #[OA\Property(description: 'What leaving it out is called.')]
        public ?string $none,
        #[OA\Property]
        public string $hint,
        #[OA\Property(description: 'What is put there to begin with: any JSON.', nullable: true)]
        public mixed $begins,
        #[OA\Property(description: 'Where it goes on, from there.')]
        public string $then,
    ) {
    }

    /** @return array<string, mixed> */
    public function jsonSerialize(): array
    {
        return ['sort' => $this->sort, 'label' => $this->label] + array_filter(
            get_object_vars($this),
            static fn (mixed $said): bool => ! in_array($said, [null, false, [], ''], true),
        );
    }
}

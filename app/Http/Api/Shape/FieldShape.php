<?php

declare(strict_types=1);

namespace App\Http\Api\Shape;

use OpenApi\Attributes as OA;

/** One field of a record type. */
#[OA\Schema]
final readonly class FieldShape
{
    /**
     * @param  list<ChoiceShape>  $choices
     */
    public function __construct(
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public string $label,
        #[
            OA\Property(enum: [
                'text', 'long_text', 'email', 'phone', 'link', 'number', 'money', 'percent', 'tick', 'date', 'date_time', 'choice',
                'choices', 'tags', 'person', 'reference',
            ]),
        ]
        public string $type,
        #[OA\Property]
        public bool $required,
        #[OA\Property]
        public bool $system,
        #[OA\Property(items: new OA\Items(type: ChoiceShape::class))]
        public array $choices,
        #[OA\Property]
        public ?string $target,
        #[OA\Property]
        public int $scale,
        #[OA\Property]
        public int $maxLength,
        #[OA\Property]
        public ?string $currency,
        #[OA\Property]
        public ?string $min,
        #[OA\Property]
        public ?string $max,
        #[OA\Property(description: 'Computed from other fields of the record, and never set.')]
        public ?string $formula,
        #[OA\Property(description: 'What somebody who fills it in is told.')]
        public string $help,
        #[OA\Property(description: 'Whether whoever asks may see it and not change it.')]
        public bool $readOnly = false,
    ) {
    }
}

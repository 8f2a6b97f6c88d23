<?php

declare(strict_types=1);

namespace App\Http\Types;

use OpenApi\Attributes as OA;

/** One field of a record type. */
#[OA\Schema]
final readonly class FieldResource
{
    /**
     * @param  list<ChoiceResource>  $choices
     * @param  list<string>  $requiredAt
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
        #[OA\Property(items: new OA\Items(type: ChoiceResource::class))]
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
        #[OA\Property(description: 'Under which heading it stands on the page; empty for the first, which has none.')]
        public string $section = '',
        #[OA\Property(nullable: true, oneOf: [new OA\Schema(type: 'string'), new OA\Schema(type: 'boolean')],
            description: 'Of a new record that is given nothing else.')]
        public string|bool|null $default = null,
        #[OA\Property(description: 'Whether no two records have the same.')]
        public bool $unique = false,
        #[OA\Property(description: 'Values of the stage at which it has to be filled in.', items: new OA\Items(type: 'string'))]
        public array $requiredAt = [],
        #[OA\Property(description: 'What becomes of its record when the other one is deleted.', enum: ['keep', 'refuse', 'clear', 'along'])]
        public string $onDelete = 'keep',
        #[OA\Property(description: 'The pattern by which the application counts it up.')]
        public ?string $numbering = null,
    ) {
    }
}

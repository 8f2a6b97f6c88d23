<?php

declare(strict_types=1);

namespace App\Http\Types;

use OpenApi\Attributes as OA;

/** One value a choice field offers. */
#[OA\Schema]
final readonly class ChoiceResource
{
    public function __construct(
        #[OA\Property]
        public string $value,
        #[OA\Property]
        public string $label,
        #[OA\Property]
        public ?string $tone,
        #[OA\Property(description: 'Whether a record is done with as soon as it has it.')]
        public bool $closes,
        #[OA\Property(description: 'Whether it is kept where it is, and offered no more.')]
        public bool $isRetired,
    ) {
    }
}

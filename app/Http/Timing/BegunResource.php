<?php

declare(strict_types=1);

namespace App\Http\Timing;

use OpenApi\Attributes as OA;

/** A kind of line offered, with what a new one is. */
#[OA\Schema]
final readonly class BegunResource
{
    /** @param  array<string, mixed>  $begins */
    public function __construct(
        #[OA\Property]
        public string $kind,
        #[OA\Property]
        public string $label,
        #[OA\Property(description: 'As a rule file writes it.', type: 'object')]
        public array $begins,
    ) {
    }
}

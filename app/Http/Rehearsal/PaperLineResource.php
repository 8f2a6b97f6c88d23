<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use OpenApi\Attributes as OA;

/** A pencilled line that a rehearsal struck out, left out, or left standing. */
#[OA\Schema]
final readonly class PaperLineResource
{
    public function __construct(
        #[OA\Property(format: 'date-time')]
        public ?string $due,
        #[OA\Property]
        public string $said,
        #[OA\Property]
        public ?string $ruleName,
        #[OA\Property]
        public bool $own,
        #[OA\Property(description: 'Why it was struck out; empty when it still stands.')]
        public string $because,
        #[OA\Property(description: 'Number of the entry that struck it out; null when it still stands.')]
        public ?int $entry,
    ) {
    }
}

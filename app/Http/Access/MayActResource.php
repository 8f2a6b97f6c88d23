<?php

declare(strict_types=1);

namespace App\Http\Access;

use OpenApi\Attributes as OA;

/** Whether somebody may do something, with whose records, and why. */
#[OA\Schema]
final readonly class MayActResource
{
    public function __construct(
        #[OA\Property(enum: ['read', 'create', 'change', 'delete', 'export', 'run'])]
        public string $act,
        #[OA\Property]
        public string $label,
        #[OA\Property]
        public bool $may,
        #[OA\Property]
        public string $why,
        #[OA\Property(description: 'Whose records their role reaches.', enum: ['none', 'own', 'team', 'subtree', 'all'])]
        public string $reach,
    ) {
    }
}

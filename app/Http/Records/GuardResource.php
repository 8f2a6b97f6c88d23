<?php

declare(strict_types=1);

namespace App\Http\Records;

use OpenApi\Attributes as OA;

/** What a rule has used of its repeat guard for one record. */
#[OA\Schema]
final readonly class GuardResource
{
    public function __construct(
        #[OA\Property]
        public int $rule,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public string $fires,
        #[OA\Property]
        public int $count,
        #[OA\Property(format: 'date-time', nullable: true)]
        public ?string $lastFired,
        #[OA\Property]
        public bool $holds,
    ) {
    }
}

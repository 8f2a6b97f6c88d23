<?php

declare(strict_types=1);

namespace App\Http\Today;

use OpenApi\Attributes as OA;

/** Somebody for whom sign-offs wait. */
#[OA\Schema]
final readonly class WaitingPerson
{
    public function __construct(
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public int $count,
        #[OA\Property(format: 'date-time')]
        public string $since,
    ) {
    }
}

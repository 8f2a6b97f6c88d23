<?php

declare(strict_types=1);

namespace App\Http\Timing;

use OpenApi\Attributes as OA;

/** A worker or clock process that has been heard of. */
#[OA\Schema]
final readonly class ProcessResource
{
    public function __construct(
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public string $kind,
        #[OA\Property(format: 'date-time')]
        public string $startedAt,
        #[OA\Property(format: 'date-time')]
        public string $beatAt,
        #[OA\Property]
        public int $done,
        #[OA\Property]
        public bool $alive,
    ) {
    }
}

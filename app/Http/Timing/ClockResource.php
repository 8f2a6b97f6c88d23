<?php

declare(strict_types=1);

namespace App\Http\Timing;

use OpenApi\Attributes as OA;

/** The house clock, and the turn it is in or was in last. */
#[OA\Schema]
final readonly class ClockResource
{
    public function __construct(
        #[OA\Property(format: 'date-time')]
        public string $now,
        #[OA\Property]
        public string $timeZone,
        #[OA\Property]
        public bool $mayTurn,
        #[OA\Property(format: 'date-time', nullable: true)]
        public ?string $nextDue,
        #[OA\Property]
        public ?TurnResource $turn,
    ) {
    }
}

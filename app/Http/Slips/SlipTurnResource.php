<?php

declare(strict_types=1);

namespace App\Http\Slips;

use OpenApi\Attributes as OA;

/** Somebody's turn to answer a slip. */
#[OA\Schema]
final readonly class SlipTurnResource
{
    public function __construct(
        #[OA\Property]
        public string $name,
        #[OA\Property(enum: ['waiting', 'answered', 'passed_on', 'unreached', 'over'])]
        public string $state,
        #[OA\Property]
        public string $sentAt,
        #[OA\Property(description: 'When their time runs out; null for never.')]
        public ?string $due,
        #[OA\Property(description: 'How often they were reminded.')]
        public int $nudged,
        #[OA\Property]
        public ?string $endedAt,
    ) {
    }
}

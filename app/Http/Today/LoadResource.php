<?php

declare(strict_types=1);

namespace App\Http\Today;

use OpenApi\Attributes as OA;

/** How much somebody has to do. */
#[OA\Schema]
final readonly class LoadResource
{
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public string $team,
        #[OA\Property(description: 'Until when they are away; null when they are here.', format: 'date-time', nullable: true)]
        public ?string $awayUntil,
        #[OA\Property(description: 'Open tasks.')]
        public int $open,
        #[OA\Property]
        public int $late,
        #[OA\Property(description: 'Due today, and not late yet.')]
        public int $dueToday,
        #[OA\Property(description: 'Sign-offs that wait for them.')]
        public int $signOffs,
    ) {
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Today;

use OpenApi\Attributes as OA;

/** How much waits for somebody: what the figures beside the places of the application say. */
#[OA\Schema]
final readonly class WaitingResource
{
    public function __construct(
        #[OA\Property(description: 'Open tasks of their own.')]
        public int $tasks,
        #[OA\Property(description: 'Sign-offs that wait for their answer.')]
        public int $signOffs,
        #[OA\Property(description: 'Slips that wait for their answer.')]
        public int $slips,
        #[OA\Property(description: 'What the bell has to tell since they last looked, at most 30.')]
        public int $notices,
    ) {
    }
}

<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use App\Http\Today\WaitingPerson;
use OpenApi\Attributes as OA;

/** How sign-offs stand in the company: what waits, for whom and how long. */
#[OA\Schema]
final readonly class SignOffLoad
{
    /** @param  list<WaitingPerson>  $people */
    public function __construct(
        #[OA\Property(description: 'For whoever asks.')]
        public int $mine,
        #[OA\Property(description: 'For anybody.')]
        public int $waiting,
        #[OA\Property(description: 'Half of those decided in 30 days took no longer; null when there are none.', nullable: true)]
        public ?int $medianSeconds,
        #[OA\Property(description: 'The one for whom something has waited longest first.', items: new OA\Items(type: WaitingPerson::class))]
        public array $people,
    ) {
    }
}

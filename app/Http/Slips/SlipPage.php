<?php

declare(strict_types=1);

namespace App\Http\Slips;

use OpenApi\Attributes as OA;

/** Slips, the latest first, and how many there are. */
#[OA\Schema]
final readonly class SlipPage
{
    /** @param  list<SlipResource>  $slips */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: SlipResource::class))]
        public array $slips,
        #[OA\Property]
        public int $count,
        #[OA\Property(description: 'How many wait for whoever asks.')]
        public int $mineWaiting,
    ) {
    }
}

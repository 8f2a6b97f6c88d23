<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use OpenApi\Attributes as OA;

/** Calls, the latest first, and how many there are. */
#[OA\Schema]
final readonly class CallPage
{
    /** @param  list<CallResource>  $calls */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: CallResource::class))]
        public array $calls,
        #[OA\Property]
        public int $count,
    ) {
    }
}

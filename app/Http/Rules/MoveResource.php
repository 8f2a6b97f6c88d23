<?php

declare(strict_types=1);

namespace App\Http\Rules;

use OpenApi\Attributes as OA;

/** What becomes of runs in play when they move to another page. */
#[OA\Schema]
final readonly class MoveResource
{
    public function __construct(
        #[OA\Property]
        public int $runs,
        #[OA\Property]
        public int $moved,
        #[OA\Property]
        public int $struck,
        #[OA\Property]
        public int $added,
    ) {
    }
}

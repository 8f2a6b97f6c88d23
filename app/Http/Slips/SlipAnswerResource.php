<?php

declare(strict_types=1);

namespace App\Http\Slips;

use OpenApi\Attributes as OA;

/** What a slip came back with, in words. */
#[OA\Schema]
final readonly class SlipAnswerResource
{
    public function __construct(
        #[OA\Property]
        public string $asked,
        #[OA\Property]
        public string $said,
    ) {
    }
}

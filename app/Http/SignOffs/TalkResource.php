<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use OpenApi\Attributes as OA;

/** A question that somebody who was asked has put back, or the answer to it. */
#[OA\Schema]
final readonly class TalkResource
{
    public function __construct(
        #[OA\Property]
        public string $by,
        #[OA\Property(format: 'date-time')]
        public string $at,
        #[OA\Property]
        public string $text,
    ) {
    }
}

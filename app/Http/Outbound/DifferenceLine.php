<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use OpenApi\Attributes as OA;

/** A sentence of one page or of both. */
#[OA\Schema]
final readonly class DifferenceLine
{
    public function __construct(
        #[OA\Property]
        public string $text,
        #[OA\Property(enum: ['same', 'gone', 'new'])]
        public string $mark,
    ) {
    }
}

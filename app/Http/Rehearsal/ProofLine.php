<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use OpenApi\Attributes as OA;

/** A line of what a proof expects, and whether it still comes. */
#[OA\Schema]
final readonly class ProofLine
{
    public function __construct(
        #[OA\Property]
        public string $text,
        #[OA\Property(enum: ['same', 'gone', 'new'])]
        public string $mark,
    ) {
    }
}

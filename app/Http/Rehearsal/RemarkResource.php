<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use OpenApi\Attributes as OA;

/** What proofreading found. */
#[OA\Schema]
final readonly class RemarkResource
{
    public function __construct(
        #[OA\Property(enum: ['blocks', 'look', 'note'])]
        public string $level,
        #[OA\Property]
        public string $at,
        #[OA\Property]
        public string $code,
        #[OA\Property]
        public string $message,
        #[OA\Property]
        public string $advice,
        #[OA\Property]
        public ?FixResource $fix,
    ) {
    }
}

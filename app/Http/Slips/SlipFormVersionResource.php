<?php

declare(strict_types=1);

namespace App\Http\Slips;

use OpenApi\Attributes as OA;

/** A kept slip as it once read. */
#[OA\Schema]
final readonly class SlipFormVersionResource
{
    public function __construct(
        #[OA\Property]
        public int $number,
        #[OA\Property]
        public string $subject,
        #[OA\Property(description: 'What it asked, as it reads.')]
        public string $said,
        #[OA\Property]
        public string $at,
        #[OA\Property]
        public string $by,
    ) {
    }
}

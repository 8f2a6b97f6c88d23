<?php

declare(strict_types=1);

namespace App\Http\Library;

use OpenApi\Attributes as OA;

/** One version of a letter template. */
#[OA\Schema]
final readonly class LetterVersionResource
{
    public function __construct(
        #[OA\Property]
        public int $number,
        #[OA\Property]
        public string $subject,
        #[OA\Property]
        public string $body,
        #[OA\Property(format: 'date-time')]
        public string $at,
        #[OA\Property]
        public string $by,
    ) {
    }
}

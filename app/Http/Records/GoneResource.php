<?php

declare(strict_types=1);

namespace App\Http\Records;

use OpenApi\Attributes as OA;

/** A record that was deleted and can be brought back. */
#[OA\Schema]
final readonly class GoneResource
{
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $number,
        #[OA\Property]
        public string $title,
        #[OA\Property(format: 'date-time')]
        public string $at,
        #[OA\Property]
        public string $by,
    ) {
    }
}

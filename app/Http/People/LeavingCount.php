<?php

declare(strict_types=1);

namespace App\Http\People;

use OpenApi\Attributes as OA;

/** So many records of a type. */
#[OA\Schema]
final readonly class LeavingCount
{
    public function __construct(
        #[OA\Property]
        public string $type,
        #[OA\Property]
        public int $count,
    ) {
    }
}

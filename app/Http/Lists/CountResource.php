<?php

declare(strict_types=1);

namespace App\Http\Lists;

use OpenApi\Attributes as OA;

/** How many records have a value. */
#[OA\Schema]
final readonly class CountResource
{
    public function __construct(
        #[OA\Property]
        public string $value,
        #[OA\Property]
        public int $count,
    ) {
    }
}

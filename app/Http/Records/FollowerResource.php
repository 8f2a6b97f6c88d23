<?php

declare(strict_types=1);

namespace App\Http\Records;

use OpenApi\Attributes as OA;

/** Somebody who follows a record. */
#[OA\Schema]
final readonly class FollowerResource
{
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $name,
    ) {
    }
}

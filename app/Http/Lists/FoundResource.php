<?php

declare(strict_types=1);

namespace App\Http\Lists;

use OpenApi\Attributes as OA;

/** A record that was found by what it is called. */
#[OA\Schema]
final readonly class FoundResource
{
    public function __construct(
        #[OA\Property]
        public string $type,
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $number,
        #[OA\Property]
        public string $title,
    ) {
    }
}

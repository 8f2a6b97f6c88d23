<?php

declare(strict_types=1);

namespace App\Http\Lists;

use OpenApi\Attributes as OA;

/** A view of a list, by its name. */
#[OA\Schema]
final readonly class OfferedViewResource
{
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $type,
        #[OA\Property]
        public string $name,
    ) {
    }
}

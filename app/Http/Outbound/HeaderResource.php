<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use OpenApi\Attributes as OA;

/** A header of a request. */
#[OA\Schema]
final readonly class HeaderResource
{
    public function __construct(
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public string $value,
    ) {
    }
}

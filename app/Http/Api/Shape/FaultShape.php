<?php

declare(strict_types=1);

namespace App\Http\Api\Shape;

use OpenApi\Attributes as OA;

/** Something that is wrong, at its place. */
#[OA\Schema]
final readonly class FaultShape
{
    public function __construct(
        #[OA\Property]
        public string $at,
        #[OA\Property]
        public string $code,
        #[OA\Property]
        public string $message,
    ) {
    }
}

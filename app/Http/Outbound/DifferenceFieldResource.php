<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use OpenApi\Attributes as OA;

/** A field that says one thing here and another there. */
#[OA\Schema]
final readonly class DifferenceFieldResource
{
    public function __construct(
        #[OA\Property]
        public string $label,
        #[OA\Property]
        public string $ours,
        #[OA\Property]
        public string $theirs,
    ) {
    }
}

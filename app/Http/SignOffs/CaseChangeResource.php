<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use OpenApi\Attributes as OA;

/** What a change did to a field, in words. */
#[OA\Schema]
final readonly class CaseChangeResource
{
    public function __construct(
        #[OA\Property]
        public string $label,
        #[OA\Property]
        public string $before,
        #[OA\Property]
        public string $after,
    ) {
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Setup;

use OpenApi\Attributes as OA;

/** Record types and rules that a company can start with. */
#[OA\Schema]
final readonly class StarterSetResource
{
    public function __construct(
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public string $label,
        #[OA\Property]
        public string $says,
    ) {
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Records;

use OpenApi\Attributes as OA;

/** How long a record was at a value of its stage. */
#[OA\Schema]
final readonly class StageResource
{
    public function __construct(
        #[OA\Property]
        public string $value,
        #[OA\Property]
        public string $label,
        #[OA\Property]
        public int $seconds,
        #[OA\Property]
        public bool $current,
    ) {
    }
}

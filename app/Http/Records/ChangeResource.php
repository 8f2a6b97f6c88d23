<?php

declare(strict_types=1);

namespace App\Http\Records;

use OpenApi\Attributes as OA;

/** A field that changed, as a person reads it. */
#[OA\Schema]
final readonly class ChangeResource
{
    public function __construct(
        #[OA\Property]
        public string $field,
        #[OA\Property]
        public string $label,
        #[OA\Property]
        public string $before,
        #[OA\Property]
        public string $after,
    ) {
    }
}

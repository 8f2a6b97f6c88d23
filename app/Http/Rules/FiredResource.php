<?php

declare(strict_types=1);

namespace App\Http\Rules;

use OpenApi\Attributes as OA;

/** A rule that fired on a save. */
#[OA\Schema]
final readonly class FiredResource
{
    public function __construct(
        #[OA\Property]
        public int $entry,
        #[OA\Property]
        public int $rule,
        #[OA\Property]
        public string $name,
    ) {
    }
}

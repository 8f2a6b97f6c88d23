<?php

declare(strict_types=1);

namespace App\Http\Timing;

use OpenApi\Attributes as OA;

/** A rule that is run by hand. */
#[OA\Schema]
final readonly class RunnableResource
{
    public function __construct(
        #[OA\Property]
        public int $rule,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public string $aloud,
    ) {
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Setup;

use OpenApi\Attributes as OA;

/** What a field of a new record begins with. */
#[OA\Schema]
final readonly class StartResource
{
    public function __construct(
        #[OA\Property]
        public string $field,
        #[OA\Property]
        public string $value,
    ) {
    }
}

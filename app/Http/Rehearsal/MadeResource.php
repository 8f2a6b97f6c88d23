<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use OpenApi\Attributes as OA;

/** What was made, by the name under which it is known from now on. */
#[OA\Schema]
final readonly class MadeResource
{
    public function __construct(
        #[OA\Property]
        public string $name,
    ) {
    }
}

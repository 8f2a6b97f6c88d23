<?php

declare(strict_types=1);

namespace App\Http\Writing;

use OpenApi\Attributes as OA;

/** A rule as text. */
#[OA\Schema]
final readonly class PrintedResource
{
    public function __construct(
        #[OA\Property]
        public string $text,
    ) {
    }
}

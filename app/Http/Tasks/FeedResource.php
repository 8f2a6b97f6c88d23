<?php

declare(strict_types=1);

namespace App\Http\Tasks;

use OpenApi\Attributes as OA;

/** The secret address of a person's calendar feed, shown once. */
#[OA\Schema]
final readonly class FeedResource
{
    public function __construct(
        #[OA\Property]
        public string $url,
    ) {
    }
}

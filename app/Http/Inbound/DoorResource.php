<?php

declare(strict_types=1);

namespace App\Http\Inbound;

use OpenApi\Attributes as OA;

/** What whoever stands at the door may know. */
#[OA\Schema]
final readonly class DoorResource
{
    public function __construct(
        #[OA\Property(description: 'Whether there is a company here; otherwise somebody with the link of the server opens one.')]
        public bool $hasCompany,
    ) {
    }
}

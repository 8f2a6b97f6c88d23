<?php

declare(strict_types=1);

namespace App\Http\Access;

use OpenApi\Attributes as OA;

/** Somewhere that a person is signed in. */
#[OA\Schema]
final readonly class SignInResource
{
    public function __construct(
        #[OA\Property(description: 'What it is known by here; nobody signs in with it.')]
        public string $mark,
        #[OA\Property(description: 'What the browser calls itself.')]
        public string $browser,
        #[OA\Property]
        public string $address,
        #[OA\Property(format: 'date-time')]
        public string $lastUsedAt,
        #[OA\Property(description: 'Whether it is the one that asks.')]
        public bool $isThis,
    ) {
    }
}

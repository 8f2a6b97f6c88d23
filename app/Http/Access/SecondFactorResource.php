<?php

declare(strict_types=1);

namespace App\Http\Access;

use OpenApi\Attributes as OA;

/** What an authenticator application is to be given; nothing is kept of it until a first code comes back. */
#[OA\Schema]
final readonly class SecondFactorResource
{
    public function __construct(
        #[OA\Property(description: 'Base32 (RFC 4648).')]
        public string $secret,
        #[OA\Property(description: 'The same as an otpauth address.')]
        public string $uri,
    ) {
    }
}

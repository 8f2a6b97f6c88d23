<?php

declare(strict_types=1);

namespace App\Http\Inbound;

use OpenApi\Attributes as OA;

/** Which member of what arrives goes into which field. */
#[OA\Schema]
final readonly class TakenResource
{
    public function __construct(
        #[OA\Property(description: 'Members with dots between: customer.name.')]
        public string $path,
        #[OA\Property]
        public string $field,
    ) {
    }
}

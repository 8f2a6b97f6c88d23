<?php

declare(strict_types=1);

namespace App\Http\Writing;

use OpenApi\Attributes as OA;

/** One of several kinds offered: of trigger, guard, line or unit. */
#[OA\Schema]
final readonly class OfferResource
{
    public function __construct(
        #[OA\Property]
        public string $kind,
        #[OA\Property]
        public string $label,
    ) {
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Writing;

use App\Http\Ledger\WayResource;
use OpenApi\Attributes as OA;

/** What an editor offers: what can be chosen, and the ways to fill in its form. */
#[OA\Schema]
final readonly class ChoicesResource
{
    /**
     * @param  list<OfferedResource>  $offers
     * @param  list<WayResource>  $ways
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: OfferedResource::class))]
        public array $offers,
        #[OA\Property(items: new OA\Items(type: WayResource::class))]
        public array $ways,
    ) {
    }
}

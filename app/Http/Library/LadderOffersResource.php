<?php

declare(strict_types=1);

namespace App\Http\Library;

use App\Http\Writing\OfferedResource;
use App\Http\Writing\OfferResource;
use OpenApi\Attributes as OA;

/** What a rung of a ladder can be made of. */
#[OA\Schema]
final readonly class LadderOffersResource
{
    /**
     * @param  list<OfferedResource>  $people
     * @param  list<OfferResource>  $acts
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: OfferedResource::class))]
        public array $people,
        #[OA\Property(items: new OA\Items(type: OfferResource::class))]
        public array $acts,
    ) {
    }
}

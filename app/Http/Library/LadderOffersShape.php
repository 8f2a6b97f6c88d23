<?php

declare(strict_types=1);

namespace App\Http\Library;

use App\Http\Writing\OfferedShape;
use App\Http\Writing\OfferShape;
use OpenApi\Attributes as OA;

/** What a rung of a ladder can be made of. */
#[OA\Schema]
final readonly class LadderOffersShape
{
    /**
     * @param  list<OfferedShape>  $people
     * @param  list<OfferShape>  $acts
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: OfferedShape::class))]
        public array $people,
        #[OA\Property(items: new OA\Items(type: OfferShape::class))]
        public array $acts,
    ) {
    }
}

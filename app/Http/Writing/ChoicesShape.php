<?php

declare(strict_types=1);

namespace App\Http\Writing;

use App\Http\Ledger\WayShape;
use OpenApi\Attributes as OA;

/** What an editor offers: what can be chosen, and the ways to fill in its form. */
#[OA\Schema]
final readonly class ChoicesShape
{
    /**
     * @param  list<OfferedShape>  $offers
     * @param  list<WayShape>  $ways
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: OfferedShape::class))]
        public array $offers,
        #[OA\Property(items: new OA\Items(type: WayShape::class))]
        public array $ways,
    ) {
    }
}

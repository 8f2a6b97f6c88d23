<?php

declare(strict_types=1);

namespace App\Http\Access;

use App\Http\Writing\OfferShape;
use OpenApi\Attributes as OA;

/** All roles, and what a role can be made of. */
#[OA\Schema]
final readonly class RolesShape
{
    /**
     * @param  list<RoleShape>  $roles
     * @param  list<OfferShape>  $acts
     * @param  list<OfferShape>  $reaches
     * @param  list<OfferShape>  $duties
     * @param  list<OfferShape>  $accesses
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: RoleShape::class))]
        public array $roles,
        #[OA\Property(items: new OA\Items(type: OfferShape::class))]
        public array $acts,
        #[OA\Property(items: new OA\Items(type: OfferShape::class))]
        public array $reaches,
        #[OA\Property(items: new OA\Items(type: OfferShape::class))]
        public array $duties,
        #[OA\Property(items: new OA\Items(type: OfferShape::class))]
        public array $accesses,
    ) {
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Access;

use App\Http\Writing\OfferResource;
use OpenApi\Attributes as OA;

/** All roles, and what a role can be made of. */
#[OA\Schema]
final readonly class RolesResource
{
    /**
     * @param  list<RoleResource>  $roles
     * @param  list<OfferResource>  $acts
     * @param  list<OfferResource>  $reaches
     * @param  list<OfferResource>  $duties
     * @param  list<OfferResource>  $accesses
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: RoleResource::class))]
        public array $roles,
        #[OA\Property(items: new OA\Items(type: OfferResource::class))]
        public array $acts,
        #[OA\Property(items: new OA\Items(type: OfferResource::class))]
        public array $reaches,
        #[OA\Property(items: new OA\Items(type: OfferResource::class))]
        public array $duties,
        #[OA\Property(items: new OA\Items(type: OfferResource::class))]
        public array $accesses,
    ) {
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Access;

use OpenApi\Attributes as OA;

/** What somebody may see and do, and by what. */
#[OA\Schema]
final readonly class MayResource
{
    /**
     * @param  list<string>  $duties
     * @param  list<MayTypeResource>  $types
     * @param  list<string>  $team
     * @param  list<string>  $below
     */
    public function __construct(
        #[OA\Property]
        public string $role,
        #[OA\Property(description: 'What their role is trusted with, in words.', items: new OA\Items(type: 'string'))]
        public array $duties,
        #[OA\Property(items: new OA\Items(type: MayTypeResource::class))]
        public array $types,
        #[OA\Property(description: 'Who else is in their team.', items: new OA\Items(type: 'string'))]
        public array $team,
        #[OA\Property(description: 'Who works for them, at any distance.', items: new OA\Items(type: 'string'))]
        public array $below,
    ) {
    }
}

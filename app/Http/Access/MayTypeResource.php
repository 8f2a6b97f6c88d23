<?php

declare(strict_types=1);

namespace App\Http\Access;

use OpenApi\Attributes as OA;

/** What somebody may do with the records of one type. */
#[OA\Schema]
final readonly class MayTypeResource
{
    /**
     * @param  list<MayActResource>  $acts
     * @param  list<string>  $hidden
     * @param  list<string>  $readOnly
     */
    public function __construct(
        #[OA\Property]
        public string $type,
        #[OA\Property]
        public string $plural,
        #[OA\Property(description: 'So many of them they see.')]
        public int $seen,
        #[OA\Property(description: 'Of so many that there are.')]
        public int $all,
        #[OA\Property(items: new OA\Items(type: MayActResource::class))]
        public array $acts,
        #[OA\Property(description: 'Labels of fields kept from them.', items: new OA\Items(type: 'string'))]
        public array $hidden,
        #[OA\Property(description: 'Labels of fields they see and do not change.', items: new OA\Items(type: 'string'))]
        public array $readOnly,
    ) {
    }
}

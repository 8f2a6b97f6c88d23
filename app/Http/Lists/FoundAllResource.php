<?php

declare(strict_types=1);

namespace App\Http\Lists;

use OpenApi\Attributes as OA;

/** What was found by some words. */
#[OA\Schema]
final readonly class FoundAllResource
{
    /**
     * @param  list<FoundResource>  $records
     * @param  list<OfferedViewResource>  $views
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: FoundResource::class))]
        public array $records,
        #[OA\Property(description: 'What was searched for instead, where nothing is called what was asked; or "".')]
        public string $nearly,
        #[OA\Property(items: new OA\Items(type: OfferedViewResource::class))]
        public array $views,
    ) {
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Library;

use OpenApi\Attributes as OA;

/** A sign-off that runs on along a route as it was, and whom it would ask if it were moved. */
#[OA\Schema]
final readonly class RouteMoveResource
{
    /**
     * @param  list<string>  $now
     * @param  list<string>  $then
     */
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $recordNumber,
        #[OA\Property]
        public string $recordTitle,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $now,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $then,
    ) {
    }
}

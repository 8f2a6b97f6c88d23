<?php

declare(strict_types=1);

namespace App\Http\Types;

use App\Http\Timing\BegunResource;
use App\Http\Writing\OfferResource;
use OpenApi\Attributes as OA;

/** Everything the screens need to offer real fields, operators and values. */
#[OA\Schema]
final readonly class SchemaResource
{
    /**
     * @param  list<TypeResource>  $types
     * @param  list<BegunResource>  $lines
     * @param  list<OfferResource>  $units
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: TypeResource::class))]
        public array $types,
        #[OA\Property(description: 'What stands behind a field with a person in it.')]
        public TypeResource $people,
        #[OA\Property(items: new OA\Items(type: BegunResource::class))]
        public array $lines,
        #[OA\Property(items: new OA\Items(type: OfferResource::class))]
        public array $units,
    ) {
    }
}

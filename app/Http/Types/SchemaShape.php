<?php

declare(strict_types=1);

namespace App\Http\Types;

use App\Http\Timing\BegunShape;
use App\Http\Writing\OfferShape;
use OpenApi\Attributes as OA;

/** Everything the screens need to offer real fields, operators and values. */
#[OA\Schema]
final readonly class SchemaShape
{
    /**
     * @param  list<TypeShape>  $types
     * @param  list<BegunShape>  $lines
     * @param  list<OfferShape>  $units
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: TypeShape::class))]
        public array $types,
        #[OA\Property(description: 'What stands behind a field with a person in it.')]
        public TypeShape $people,
        #[OA\Property(items: new OA\Items(type: BegunShape::class))]
        public array $lines,
        #[OA\Property(items: new OA\Items(type: OfferShape::class))]
        public array $units,
    ) {
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Api\Shape;

use OpenApi\Attributes as OA;

/** How many records match the conditions of a rule now. */
#[OA\Schema]
final readonly class MatchShape
{
    public function __construct(
        #[OA\Property]
        public int $matching,
        #[OA\Property]
        public int $total,
        #[OA\Property(items: new OA\Items(type: RecordShape::class))]
        public array $examples,
    ) {
    }
}

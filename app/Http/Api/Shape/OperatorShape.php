<?php

declare(strict_types=1);

namespace App\Http\Api\Shape;

use OpenApi\Attributes as OA;

/** A way to compare a field of certain types. */
#[OA\Schema]
final readonly class OperatorShape
{
    public function __construct(
        #[OA\Property]
        public string $kind,
        #[OA\Property(enum: ['nothing', 'one', 'many'])]
        public string $operand,
        #[OA\Property(type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'string'))]
        public array $labels,
    ) {
    }
}

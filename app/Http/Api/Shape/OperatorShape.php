<?php

declare(strict_types=1);

namespace App\Http\Api\Shape;

use OpenApi\Attributes as OA;

/** A way to compare a field of certain types. */
#[OA\Schema]
final readonly class OperatorShape implements \JsonSerializable
{
    use SaysObjects;

    /**
     * @param  array<array-key, mixed>  $labels
     */
    public function __construct(
        #[OA\Property]
        public string $kind,
        #[OA\Property(enum: ['nothing', 'one', 'many', 'span'])]
        public string $operand,
        #[OA\Property(description: 'Whether it also compares with another field, a person found or a moving date.')]
        public bool $given,
        #[OA\Property(description: 'Whether it looks at the change, and so only fits the record\'s own fields.')]
        public bool $ofChange,
        #[OA\Property(type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'string'))]
        public array $labels,
    ) {
    }
}

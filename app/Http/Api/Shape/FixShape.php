<?php

declare(strict_types=1);

namespace App\Http\Api\Shape;

use OpenApi\Attributes as OA;

/** A change of the rule file that follows a remark's advice: the value is put at the place; null takes away what stands there. */
#[OA\Schema]
final readonly class FixShape
{
    public function __construct(
        #[OA\Property]
        public string $label,
        #[OA\Property]
        public string $at,
        #[OA\Property(nullable: true, oneOf: [new OA\Schema(type: 'string'), new OA\Schema(type: 'object', additionalProperties: true)])]
        public mixed $value,
    ) {
    }
}

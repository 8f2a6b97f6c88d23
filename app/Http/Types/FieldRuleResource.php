<?php

declare(strict_types=1);

namespace App\Http\Types;

use OpenApi\Attributes as OA;

/** A rule in force that can change a field, and by which line. */
#[OA\Schema]
final readonly class FieldRuleResource
{
    public function __construct(
        #[OA\Property]
        public int $rule,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public string $line,
    ) {
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Lists;

use OpenApi\Attributes as OA;

/** How often a rule would fire. */
#[OA\Schema]
final readonly class BulkRuleResource
{
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public int $count,
    ) {
    }
}

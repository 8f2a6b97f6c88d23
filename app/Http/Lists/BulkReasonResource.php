<?php

declare(strict_types=1);

namespace App\Http\Lists;

use OpenApi\Attributes as OA;

/** Why records would be refused. */
#[OA\Schema]
final readonly class BulkReasonResource
{
    public function __construct(
        #[OA\Property]
        public string $said,
        #[OA\Property]
        public int $count,
    ) {
    }
}

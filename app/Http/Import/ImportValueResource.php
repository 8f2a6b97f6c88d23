<?php

declare(strict_types=1);

namespace App\Http\Import;

use OpenApi\Attributes as OA;

/** What is read instead of what stands in a cell, in every row. */
#[OA\Schema]
final readonly class ImportValueResource
{
    public function __construct(
        #[OA\Property]
        public string $field,
        #[OA\Property(description: 'What stands in the cell, without regard to case.')]
        public string $from,
        #[OA\Property(description: 'What is read instead; empty for nothing.')]
        public string $to,
    ) {
    }
}

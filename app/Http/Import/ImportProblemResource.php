<?php

declare(strict_types=1);

namespace App\Http\Import;

use OpenApi\Attributes as OA;

/** What is wrong in a cell of a file. */
#[OA\Schema]
final readonly class ImportProblemResource
{
    public function __construct(
        #[OA\Property(description: 'As a table program counts, the heads in the first.')]
        public int $row,
        #[OA\Property(description: 'The field, or "" where it is about the whole row.')]
        public string $field,
        #[OA\Property]
        public string $said,
    ) {
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Import;

use OpenApi\Attributes as OA;

/** What is wrong in the same way in some rows of a file. */
#[OA\Schema]
final readonly class ImportGroupResource
{
    /** @param  list<int>  $rows */
    public function __construct(
        #[OA\Property(description: 'The field, or "" where it is about whole rows.')]
        public string $field,
        #[OA\Property]
        public string $said,
        #[OA\Property(description: 'What stands in the cell of each of them; null where they differ.', nullable: true)]
        public ?string $cell,
        #[OA\Property(description: 'In how many rows, of the first 5,000 problems.')]
        public int $count,
        #[OA\Property(description: 'The first of them, as a table program counts.', items: new OA\Items(type: 'integer'))]
        public array $rows,
    ) {
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Lists;

use OpenApi\Attributes as OA;

/** One of many records on which something could not be done. */
#[OA\Schema]
final readonly class BulkRowResource
{
    public function __construct(
        #[OA\Property(description: 'In the selection, or the row of the file.')]
        public int $place,
        #[OA\Property(nullable: true)]
        public ?int $recordId,
        #[OA\Property]
        public string $recordNumber,
        #[OA\Property]
        public string $said,
    ) {
    }
}

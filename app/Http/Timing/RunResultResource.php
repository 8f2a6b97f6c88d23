<?php

declare(strict_types=1);

namespace App\Http\Timing;

use OpenApi\Attributes as OA;

/** What a run came to on one record. */
#[OA\Schema]
final readonly class RunResultResource
{
    public function __construct(
        #[OA\Property]
        public int $recordId,
        #[OA\Property]
        public string $recordNumber,
        #[OA\Property]
        public string $recordTitle,
        #[OA\Property(enum: ['waiting', 'fired', 'silent', 'refused', 'failed'])]
        public string $result,
        #[OA\Property]
        public string $said,
        #[OA\Property]
        public ?int $entry,
    ) {
    }
}

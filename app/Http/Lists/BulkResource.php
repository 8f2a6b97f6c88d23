<?php

declare(strict_types=1);

namespace App\Http\Lists;

use OpenApi\Attributes as OA;

/** Work on many records, and how far it is. */
#[OA\Schema]
final readonly class BulkResource
{
    /** @param  list<BulkRowResource>  $problems */
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property(enum: ['change', 'import'])]
        public string $kind,
        #[OA\Property]
        public string $recordType,
        #[OA\Property]
        public string $byName,
        #[OA\Property(format: 'date-time')]
        public string $at,
        #[OA\Property(enum: ['draft', 'trying', 'tried', 'waiting', 'running', 'stopped', 'done', 'undoing', 'undone'])]
        public string $status,
        #[OA\Property]
        public int $total,
        #[OA\Property(description: 'How many have been gone through.')]
        public int $done,
        #[OA\Property]
        public int $saved,
        #[OA\Property]
        public int $refused,
        #[OA\Property]
        public int $undone,
        #[OA\Property(description: 'Those that were refused, or kept when the rest was taken back; the first hundred.', items: new OA\Items(
            type: BulkRowResource::class))]
        public array $problems,
    ) {
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Timing;

use OpenApi\Attributes as OA;

/** A rule run by hand on a selection of records. */
#[OA\Schema]
final readonly class RunResource
{
    /**
     * @param  list<RunResultResource>  $results
     */
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public int $rule,
        #[OA\Property]
        public string $ruleName,
        #[OA\Property]
        public string $recordType,
        #[OA\Property]
        public string $by,
        #[OA\Property(format: 'date-time')]
        public string $at,
        #[OA\Property(enum: ['waiting', 'running', 'done'])]
        public string $status,
        #[OA\Property]
        public int $total,
        #[OA\Property]
        public int $done,
        #[OA\Property]
        public int $fired,
        #[OA\Property(items: new OA\Items(type: RunResultResource::class))]
        public array $results,
    ) {
    }
}

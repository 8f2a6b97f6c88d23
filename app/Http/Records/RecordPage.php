<?php

declare(strict_types=1);

namespace App\Http\Records;

use App\Http\Lists\ColumnResource;
use OpenApi\Attributes as OA;

/** One page of a list of records. */
#[OA\Schema]
final readonly class RecordPage
{
    /**
     * @param  list<RecordResource>  $rows
     * @param  list<ColumnResource>  $columns
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: RecordResource::class))]
        public array $rows,
        #[OA\Property(description: 'How many there are in all; null when they were not counted.')]
        public ?int $total,
        #[OA\Property]
        public int $page,
        #[OA\Property]
        public int $perPage,
        #[OA\Property(items: new OA\Items(type: ColumnResource::class))]
        public array $columns = [],
    ) {
    }
}

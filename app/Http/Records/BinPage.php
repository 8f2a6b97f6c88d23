<?php

declare(strict_types=1);

namespace App\Http\Records;

use OpenApi\Attributes as OA;

/** Records that were deleted, the latest first. */
#[OA\Schema]
final readonly class BinPage
{
    /**
     * @param  list<GoneResource>  $records
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: GoneResource::class))]
        public array $records,
        #[OA\Property(description: 'What to ask for to see earlier ones; null when there are none.', nullable: true)]
        public ?int $before,
    ) {
    }
}

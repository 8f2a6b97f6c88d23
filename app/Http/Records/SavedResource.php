<?php

declare(strict_types=1);

namespace App\Http\Records;

use App\Http\Rules\FiredResource;
use OpenApi\Attributes as OA;

/** What a save came to: the record as it is now, rules included. */
#[OA\Schema]
final readonly class SavedResource
{
    /**
     * @param  list<FiredResource>  $fired
     */
    public function __construct(
        #[OA\Property]
        public RecordResource $record,
        #[OA\Property]
        public ?int $entry,
        #[OA\Property(items: new OA\Items(type: FiredResource::class))]
        public array $fired,
    ) {
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use OpenApi\Attributes as OA;

/** An entry with what led to it and what followed. */
#[OA\Schema]
final readonly class EntryDetail
{
    /**
     * @param  list<EntryResource>  $causes
     * @param  list<EntryResource>  $followed
     */
    public function __construct(
        #[OA\Property]
        public EntryResource $entry,
        #[OA\Property(items: new OA\Items(type: EntryResource::class))]
        public array $causes,
        #[OA\Property(items: new OA\Items(type: EntryResource::class))]
        public array $followed,
    ) {
    }
}

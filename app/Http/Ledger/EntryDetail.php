<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use OpenApi\Attributes as OA;

/** An entry with what led to it and what followed. */
#[OA\Schema]
final readonly class EntryDetail
{
    /**
     * @param  list<EntryShape>  $causes
     * @param  list<EntryShape>  $followed
     */
    public function __construct(
        #[OA\Property]
        public EntryShape $entry,
        #[OA\Property(items: new OA\Items(type: EntryShape::class))]
        public array $causes,
        #[OA\Property(items: new OA\Items(type: EntryShape::class))]
        public array $followed,
    ) {
    }
}

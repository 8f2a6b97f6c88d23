<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use OpenApi\Attributes as OA;

/** One page of the ledger, the newest entry first. */
#[OA\Schema]
final readonly class LedgerPage
{
    /**
     * @param  list<EntryResource>  $entries
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: EntryResource::class))]
        public array $entries,
        #[OA\Property(description: 'Ask with this number for the next page; null at the end.')]
        public ?int $before,
        #[OA\Property(description: 'Where "after" was asked: ask with this number for what comes later.')]
        public ?int $after = null,
    ) {
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Timing;

use App\Http\Ledger\EntryResource;
use OpenApi\Attributes as OA;

/** A turn of the house clock. */
#[OA\Schema]
final readonly class TurnResource
{
    /**
     * @param  list<EntryResource>  $entries
     */
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property(format: 'date-time')]
        public string $from,
        #[OA\Property(format: 'date-time')]
        public string $to,
        #[OA\Property(format: 'date-time')]
        public string $reached,
        #[OA\Property]
        public bool $turning,
        #[OA\Property]
        public int $done,
        #[OA\Property(items: new OA\Items(type: EntryResource::class))]
        public array $entries,
    ) {
    }
}

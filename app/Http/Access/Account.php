<?php

declare(strict_types=1);

namespace App\Http\Access;

use App\Http\Ledger\EntryResource;
use App\Http\Timing\AheadResource;
use OpenApi\Attributes as OA;

/** A record through time: what is pencilled in, and what is in ink, the newest first. */
#[OA\Schema]
final readonly class Account
{
    /**
     * @param  list<AheadResource>  $ahead
     * @param  list<EntryResource>  $entries
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: AheadResource::class))]
        public array $ahead,
        #[OA\Property(items: new OA\Items(type: EntryResource::class))]
        public array $entries,
        #[OA\Property]
        public ?int $before,
    ) {
    }
}

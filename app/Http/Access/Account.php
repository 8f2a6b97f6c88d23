<?php

declare(strict_types=1);

namespace App\Http\Access;

use App\Http\Ledger\EntryShape;
use App\Http\Timing\AheadShape;
use OpenApi\Attributes as OA;

/** A record through time: what is pencilled in, and what is in ink, the newest first. */
#[OA\Schema]
final readonly class Account
{
    /**
     * @param  list<AheadShape>  $ahead
     * @param  list<EntryShape>  $entries
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: AheadShape::class))]
        public array $ahead,
        #[OA\Property(items: new OA\Items(type: EntryShape::class))]
        public array $entries,
        #[OA\Property]
        public ?int $before,
    ) {
    }
}

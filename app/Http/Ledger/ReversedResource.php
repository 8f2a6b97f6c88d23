<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use OpenApi\Attributes as OA;

/** Numbers of the entries that reversals made. */
#[OA\Schema]
final readonly class ReversedResource
{
    /**
     * @param  list<int>  $entries
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: 'integer'))]
        public array $entries,
    ) {
    }
}

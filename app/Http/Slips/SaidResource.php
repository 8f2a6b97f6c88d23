<?php

declare(strict_types=1);

namespace App\Http\Slips;

use OpenApi\Attributes as OA;

/** Sentences. */
#[OA\Schema]
final readonly class SaidResource
{
    /** @param  list<string>  $said */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $said,
    ) {
    }
}

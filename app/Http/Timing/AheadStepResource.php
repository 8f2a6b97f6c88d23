<?php

declare(strict_types=1);

namespace App\Http\Timing;

use OpenApi\Attributes as OA;

/** A step of a sign-off that is still to come, with those it would go to now. */
#[OA\Schema]
final readonly class AheadStepResource
{
    /** @param  list<string>  $people  names */
    public function __construct(
        #[OA\Property(description: 'From 1.')]
        public int $step,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $people,
        #[OA\Property(description: 'Whether its condition does not hold, so that it would be left out.')]
        public bool $leftOut,
    ) {
    }
}

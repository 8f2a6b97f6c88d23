<?php

declare(strict_types=1);

namespace App\Http\Rules;

use App\Http\Records\RecordResource;
use OpenApi\Attributes as OA;

/** How many records match the conditions of a rule now. */
#[OA\Schema]
final readonly class MatchResource
{
    /**
     * @param  list<RecordResource>  $examples
     */
    public function __construct(
        #[OA\Property]
        public int $matching,
        #[
            OA\Property(
                description: 'How many of them “start” and “count as done” would take: of a rule on a date those whose moment has passed '
                    .'while the date is still ahead, of one on quiet those that are quiet already.',
            ),
        ]
        public int $starting,
        #[OA\Property(description: 'How many of them wait for their own time whatever is chosen.')]
        public int $waiting,
        #[OA\Property]
        public int $total,
        #[OA\Property(items: new OA\Items(type: RecordResource::class))]
        public array $examples,
    ) {
    }
}

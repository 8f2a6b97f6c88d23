<?php

declare(strict_types=1);

namespace App\Http\People;

use OpenApi\Attributes as OA;

/** A list of people, as it was understood. */
#[OA\Schema]
final readonly class PeopleRead
{
    /**
     * @param  list<PersonRead>  $people
     * @param  list<string>  $problems
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: PersonRead::class))]
        public array $people,
        #[OA\Property(description: 'What has to be mended first, by line.', items: new OA\Items(type: 'string'))]
        public array $problems,
    ) {
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Today;

use App\Http\Tasks\TaskResource;
use OpenApi\Attributes as OA;

/** A team as whoever leads it sees it: who has how much, and what slips. */
#[OA\Schema]
final readonly class TodayTeamResource
{
    /**
     * @param  list<LoadResource>  $people
     * @param  list<TaskResource>  $slipping
     */
    public function __construct(
        #[OA\Property(description: 'Everybody who reports to the person, also through others; those with the most that is late first.',
            items: new OA\Items(type: LoadResource::class))]
        public array $people,
        #[OA\Property(description: 'Tasks of theirs that are late, the latest first.', items: new OA\Items(type: TaskResource::class))]
        public array $slipping,
    ) {
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Today;

use App\Http\SignOffs\SignOffLoad;
use App\Http\Tasks\TaskResource;
use App\Http\Timing\DayResource;
use OpenApi\Attributes as OA;

/** A person's own day: what wants them, what waits for them, and what is pencilled in on what they see. */
#[OA\Schema]
final readonly class TodayResource
{
    /**
     * @param  list<TaskResource>  $tasks
     * @param  list<DayResource>  $days
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: TaskResource::class))]
        public array $tasks,
        #[OA\Property]
        public int $late,
        #[OA\Property]
        public int $dueToday,
        #[OA\Property(items: new OA\Items(type: DayResource::class))]
        public array $days,
        #[OA\Property]
        public SignOffLoad $signOffs,
        #[OA\Property(description: 'How many people report to them, also through others.')]
        public int $team,
    ) {
    }
}

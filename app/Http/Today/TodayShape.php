<?php

declare(strict_types=1);

namespace App\Http\Today;

use App\Http\SignOffs\SignOffLoad;
use App\Http\Tasks\TaskShape;
use App\Http\Timing\DayShape;
use OpenApi\Attributes as OA;

/** A person's own day: what wants them, what waits for them, and what is pencilled in on what they see. */
#[OA\Schema]
final readonly class TodayShape
{
    /**
     * @param  list<TaskShape>  $tasks
     * @param  list<DayShape>  $days
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: TaskShape::class))]
        public array $tasks,
        #[OA\Property]
        public int $late,
        #[OA\Property]
        public int $dueToday,
        #[OA\Property(items: new OA\Items(type: DayShape::class))]
        public array $days,
        #[OA\Property]
        public SignOffLoad $signOffs,
        #[OA\Property(description: 'How many people report to them, also through others.')]
        public int $team,
    ) {
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Api\Shape;

use OpenApi\Attributes as OA;

/** The first screen: what wants the person, what the rules did, and what was last put into ink. */
#[OA\Schema]
final readonly class TodayShape
{
    /**
     * @param  list<TaskShape>  $tasks
     * @param  list<RuleSummary>  $rules
     * @param  list<EntryShape>  $entries
     * @param  list<DayShape>  $days
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: TaskShape::class))]
        public array $tasks,
        #[OA\Property]
        public int $late,
        #[OA\Property]
        public int $dueToday,
        #[OA\Property(items: new OA\Items(type: RuleSummary::class))]
        public array $rules,
        #[OA\Property(items: new OA\Items(type: EntryShape::class))]
        public array $entries,
        #[OA\Property(items: new OA\Items(type: DayShape::class))]
        public array $days,
        #[OA\Property]
        public SignOffLoad $signOffs,
    ) {
    }
}

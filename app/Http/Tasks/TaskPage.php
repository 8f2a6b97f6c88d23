<?php

declare(strict_types=1);

namespace App\Http\Tasks;

use App\Http\Setup\WorkingWeekResource;
use OpenApi\Attributes as OA;

/** Tasks, and how many there are in all. */
#[OA\Schema]
final readonly class TaskPage
{
    /**
     * @param  list<TaskResource>  $tasks
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: TaskResource::class))]
        public array $tasks,
        #[OA\Property]
        public int $total,
        #[OA\Property]
        public int $mineOpen,
        #[OA\Property]
        public WorkingWeekResource $week,
    ) {
    }
}

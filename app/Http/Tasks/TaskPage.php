<?php

declare(strict_types=1);

namespace App\Http\Tasks;

use App\Http\Setup\WorkingWeekShape;
use OpenApi\Attributes as OA;

/** Tasks, and how many there are in all. */
#[OA\Schema]
final readonly class TaskPage
{
    /**
     * @param  list<TaskShape>  $tasks
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: TaskShape::class))]
        public array $tasks,
        #[OA\Property]
        public int $total,
        #[OA\Property]
        public int $mineOpen,
        #[OA\Property]
        public WorkingWeekShape $week,
    ) {
    }
}

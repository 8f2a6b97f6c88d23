<?php

declare(strict_types=1);

namespace Database\Factories\Timing;

use App\Models\Timing\LineSort;
use App\Models\Timing\ScheduledLine;
use Database\Factories\Tasks\TaskFactory;
use Illuminate\Database\Eloquent\Factories\Factory;

/**
 * That a task falls due, long since.
 *
 * @extends Factory<ScheduledLine>
 */
final class ScheduledLineFactory extends Factory
{
    protected $model = ScheduledLine::class;

    /** @return array<string, mixed> */
    public function definition(): array
    {
        return [
            'sort' => LineSort::Task, 'kind' => 'task_due', 'due_at' => '2020-01-02 00:00:00', 'record_type' => 'ticket', 'record_id' => 1,
            'task_id' => TaskFactory::new(), 'entry_id' => 1,
        ];
    }
}

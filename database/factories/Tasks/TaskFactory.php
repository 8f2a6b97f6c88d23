<?php

declare(strict_types=1);

namespace Database\Factories\Tasks;

use App\Models\Tasks\Task;
use Illuminate\Database\Eloquent\Factories\Factory;

/**
 * An open task on a ticket, of nobody.
 *
 * @extends Factory<Task>
 */
final class TaskFactory extends Factory
{
    protected $model = Task::class;

    /** @return array<string, mixed> */
    public function definition(): array
    {
        return [
            'title' => 'Look', 'notes' => '', 'record_type' => 'ticket', 'record_id' => 1, 'entry_id' => 1,
            'given_at' => '2020-01-01 00:00:00',
        ];
    }
}

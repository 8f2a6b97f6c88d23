<?php

declare(strict_types=1);

namespace Database\Factories\Operations;

use App\Models\Operations\WorkerProcess;
use Illuminate\Database\Eloquent\Factories\Factory;

/**
 * A worker that has just said that it is there.
 *
 * @extends Factory<WorkerProcess>
 */
final class WorkerProcessFactory extends Factory
{
    protected $model = WorkerProcess::class;

    /** @return array<string, mixed> */
    public function definition(): array
    {
        return [
            'process' => 'worker@'.bin2hex(random_bytes(4)), 'kind' => 'worker', 'started_at' => '2020-01-01 00:00:00',
            'beat_at' => gmdate('Y-m-d H:i:s'),
        ];
    }
}

<?php

declare(strict_types=1);

namespace App\Store\Tasks;

use App\Models\Tasks\Task;
use App\Store\Timing\RunsInPlay;
use VividLedger\Facts\Awaited;
use VividLedger\Facts\TaskFacts;

/** Tasks and runs from the database, as they are now or as they were at a moment. */
final class StoredTasks implements TaskFacts
{
    /** @var array<string, ?Awaited> what lines wait for, asked once */
    private array $awaited = [];

    public function __construct(private readonly ?\DateTimeImmutable $at = null)
    {
    }

    public function openTasks(array $people): array
    {
        return $people === [] ? [] : Task::openByPerson($people, $this->at);
    }

    public function inPlay(string $type, int $id): array
    {
        return RunsInPlay::of($type, $id, $this->at);
    }

    public function mayLapse(string $type, int $id): array
    {
        return $this->at === null ? Task::mayLapse($type, $id) : [];
    }

    public function tasksOf(int $run, string $key): ?Awaited
    {
        $known = "{$run}:{$key}";

        return array_key_exists($known, $this->awaited) ? $this->awaited[$known]
            : $this->awaited[$known] = RunsInPlay::tasks($run, $key, $this->at);
    }
}

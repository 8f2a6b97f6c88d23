<?php

declare(strict_types=1);

namespace VividLedger\Facts;

/** What may be asked about tasks, and about the runs that give them. */
interface TaskFacts
{
    /**
     * @param  list<int>  $people
     * @return array<int, int> how many open tasks each has
     */
    public function openTasks(array $people): array;

    /** @return list<Run> what is in play on a record, with its pencilled lines, the oldest first */
    public function inPlay(string $type, int $id): array;

    /** @return list<OpenTask> the open tasks on a record whose lines say what makes them lapse, in the order they were given */
    public function mayLapse(string $type, int $id): array;

    /** The tasks that one line of a run gave; null when it has given none. */
    public function tasksOf(int $run, string $key): ?Awaited;
}

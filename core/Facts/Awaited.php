<?php

declare(strict_types=1);

namespace VividLedger\Facts;

/** How far that has come which other lines wait for: the tasks that one line gave, or the sign-off that it asked for. */
final readonly class Awaited
{
    /**
     * @param  int  $open  how many tasks are still to be done; 1 for a sign-off that has not ended
     * @param  ?\DateTimeImmutable  $due  when the last of the tasks falls due; null when none has a date
     * @param  ?\DateTimeImmutable  $doneAt  when the last of them was done, or the sign-off ended; null before
     * @param  string  $ended  how the sign-off ended; empty for tasks, and before
     * @param  array<int, \DateTimeImmutable>  $steps  when each step of the sign-off was agreed to, from 0
     */
    public function __construct(
        public int $open,
        public \DateTimeImmutable $givenAt,
        public ?\DateTimeImmutable $due = null,
        public ?\DateTimeImmutable $doneAt = null,
        public string $ended = '',
        public array $steps = [],
    ) {
    }
}

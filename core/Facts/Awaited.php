<?php

declare(strict_types=1);

namespace VividLedger\Facts;

use VividLedger\Record\WaitedSort;

/**
 * How far that has come which other lines wait for: the tasks that one line gave, the sign-off that it asked for, or
 * the slip that it sent.
 */
final readonly class Awaited
{
    /**
     * @param  int  $open  how many tasks are still to be done; 1 for a sign-off that has not ended
     * @param  ?\DateTimeImmutable  $due  when the last of the tasks falls due; null when none has a date
     * @param  ?\DateTimeImmutable  $doneAt  when the last of them was done, or the sign-off ended; null before
     * @param  string  $ended  how the sign-off or the slip ended; empty for tasks, and before
     * @param  array<int, \DateTimeImmutable>  $steps  when each step of the sign-off was agreed to, from 0
     * @param  list<string>  $said  what was chosen on the slip, as it reads
     * @param  list<\DateTimeImmutable>  $yes  when people agreed to the sign-off, one after the other
     */
    public function __construct(
        public int $open,
        public \DateTimeImmutable $givenAt,
        public ?\DateTimeImmutable $due = null,
        public ?\DateTimeImmutable $doneAt = null,
        public string $ended = '',
        public array $steps = [],
        public array $said = [],
        public WaitedSort $sort = WaitedSort::Tasks,
        public array $yes = [],
    ) {
    }
}

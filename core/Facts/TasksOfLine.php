<?php

declare(strict_types=1);

namespace VividLedger\Facts;

/** How far the tasks that one line gave have come. */
final readonly class TasksOfLine
{
    /**
     * @param  int  $open  how many are still to be done
     * @param  ?\DateTimeImmutable  $due  when the last of them falls due; null when none has a date
     * @param  ?\DateTimeImmutable  $doneAt  when the last of them was done; null while one is open
     */
    public function __construct(
        public int $open,
        public \DateTimeImmutable $givenAt,
        public ?\DateTimeImmutable $due = null,
        public ?\DateTimeImmutable $doneAt = null,
    ) {
    }
}

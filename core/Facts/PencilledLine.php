<?php

declare(strict_types=1);

namespace VividLedger\Facts;

/** A line of a run that is still to come. */
final readonly class PencilledLine
{
    /**
     * @param  int  $place  of the line in its page, from 0
     * @param  int  $turn  the how-manieth time it is done, from 1
     * @param  ?\DateTimeImmutable  $due  null while it waits for a date or for a task
     * @param  ?\DateTimeImmutable  $meant  what its timing said, where quiet hours have moved it from there
     */
    public function __construct(
        public int $id,
        public Run $run,
        public int $place,
        public int $turn,
        public ?\DateTimeImmutable $due,
        public ?\DateTimeImmutable $meant = null,
    ) {
    }
}

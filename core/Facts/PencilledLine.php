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
     * @param  ?\DateTimeImmutable  $counted  when its case was known, from which its time counts; null for when the rule fired
     * @param  ?\DateTimeImmutable  $met  when what it waits for became true; null while it has not
     */
    public function __construct(
        public int $id,
        public Run $run,
        public int $place,
        public int $turn,
        public ?\DateTimeImmutable $due,
        public ?\DateTimeImmutable $meant = null,
        public ?\DateTimeImmutable $counted = null,
        public ?\DateTimeImmutable $met = null,
    ) {
    }

    /** From when its time counts. */
    public function countedFrom(): \DateTimeImmutable
    {
        return $this->counted ?? $this->run->startedAt;
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Rule\Line\TaskGiven;
use VividLedger\Rule\Rule;

/** A task that was given on paper. */
final class PaperTask
{
    public ?\DateTimeImmutable $doneAt = null;

    /** Whether it has lost its point, and need not be done. */
    public bool $isLapsed = false;

    /**
     * @param  int  $number  among the tasks of the rehearsal, from 1
     * @param  int  $entry  number on paper of what gave it
     * @param  ?int  $run  whose line gave it
     */
    public function __construct(
        public readonly int $number,
        public readonly TaskGiven $given,
        public readonly \DateTimeImmutable $givenAt,
        public readonly Rule $rule,
        public readonly int $entry,
        public readonly ?int $run,
    ) {
    }

    public function isOpen(): bool
    {
        return $this->doneAt === null && ! $this->isLapsed;
    }
}

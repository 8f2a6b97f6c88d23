<?php

declare(strict_types=1);

namespace VividLedger\Rule\Performance;

/** A line that is to be pencilled in. */
final readonly class Pencilling
{
    /**
     * @param  int  $place  of the line in its page, from 0
     * @param  int  $turn  the how-manieth time it will be done, from 1
     * @param  ?\DateTimeImmutable  $due  null while it waits for a date or for a task
     * @param  string  $why  it does not happen when it would have; empty when it does
     * @param  ?\DateTimeImmutable  $meant  what its timing said, where quiet hours have moved it from there
     * @param  ?\DateTimeImmutable  $counted  when its case was known, from which its time counts; null for when the rule fired
     * @param  ?\DateTimeImmutable  $met  when what it waits for became true; null while it has not
     */
    public function __construct(
        public int $place,
        public int $turn,
        public ?\DateTimeImmutable $due,
        public string $kind,
        public string $why = '',
        public ?\DateTimeImmutable $meant = null,
        public ?\DateTimeImmutable $counted = null,
        public ?\DateTimeImmutable $met = null,
    ) {
    }
}

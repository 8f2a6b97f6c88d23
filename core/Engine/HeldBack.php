<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Facts\Lock;
use VividLedger\Record\Change;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;

/** A rule that would have fired on a record that is locked. */
final readonly class HeldBack implements Step
{
    /** @param  Change  $answered  what set it off, which comes again once the record is free */
    public function __construct(
        public Rule $rule,
        public Record $record,
        public Change $answered,
        public Lock $lock,
        public ?int $parent,
    ) {
    }

    public function parent(): ?int
    {
        return $this->parent;
    }

    /** Whether it is to be answered once the record is free. What asked for the sign-off does not ask again. */
    public function comesAgain(): bool
    {
        return $this->lock->catchesUp && $this->rule->id !== $this->lock->rule;
    }
}

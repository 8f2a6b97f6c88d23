<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Record\Record;
use VividLedger\Rule\Rule;

/** A rule whose used guard was made ready again for a record. */
final readonly class ReadyAgain implements Step
{
    public function __construct(
        public Rule $rule,
        public Record $record,
        public ?int $parent,
        public int $epoch,
    ) {
    }

    public function parent(): ?int
    {
        return $this->parent;
    }
}

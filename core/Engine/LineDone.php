<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Facts\PencilledLine;
use VividLedger\Record\Change;
use VividLedger\Record\Record;
use VividLedger\Rule\Performance\Performance;
use VividLedger\Rule\Rule;

/** A pencilled line that fell due and was done. */
final readonly class LineDone extends Deed
{
    public function __construct(
        public PencilledLine $line,
        Rule $rule,
        Change $cause,
        Performance $performance,
        Record $before,
        Record $after,
    ) {
        parent::__construct($rule, $cause, null, $performance, $before, $after);
    }

    public function key(): string
    {
        return "line:{$this->line->id}";
    }
}

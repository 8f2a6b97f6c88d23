<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Facts\PencilledLine;
use VividLedger\Record\Change;
use VividLedger\Record\Record;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\Rule;

/** A pencilled line that fell due and was done. */
final readonly class LineDone extends ExecutedStep
{
    public function __construct(
        public PencilledLine $line,
        Rule $rule,
        Change $cause,
        ActionContext $performance,
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

<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Record\Change;
use VividLedger\Record\Record;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\Rule;

/** Lines of a rule being done: all that are due when it fires, or one that fell due later. */
abstract readonly class ExecutedStep implements Step
{
    /**
     * @param  Change  $cause  the change that was answered, or the line falling due
     * @param  ?int  $parent  place in the decision of the step that made that change; null for the change decided on
     * @param  Record  $before  the record before the lines
     * @param  Record  $after  the same after the lines
     */
    public function __construct(
        public Rule $rule,
        public Change $cause,
        public ?int $parent,
        public ActionContext $performance,
        public Record $before,
        public Record $after,
    ) {
    }

    public function parent(): ?int
    {
        return $this->parent;
    }

    /** Names it among all deeds. */
    abstract public function key(): string;
}

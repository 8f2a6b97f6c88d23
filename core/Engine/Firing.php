<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Record\Change;
use VividLedger\Record\Record;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\Rule;

/** A rule that fires on a change, and what its lines did. */
final readonly class Firing extends ExecutedStep
{
    /** @param  int  $epoch  how often the guard had been made ready again */
    public function __construct(
        Rule $rule,
        Change $cause,
        ?int $parent,
        public int $epoch,
        public string $guardKey,
        public Verdict $why,
        ActionContext $performance,
        Record $before,
        Record $after,
    ) {
        parent::__construct($rule, $cause, $parent, $performance, $before, $after);
    }

    public function key(): string
    {
        return $this->guardKey;
    }
}

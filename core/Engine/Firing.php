<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Explain\Verdict;
use VividLedger\Record\Change;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;

/** A rule that fires on a change, and what its lines did. */
final readonly class Firing implements Step
{
    /**
     * @param  Change  $cause  the change the rule answered
     * @param  ?int  $parent  place in the decision of the step that made that change; null for the change decided on
     * @param  int  $epoch  how often the guard had been made ready again
     * @param  Record  $before  the record the rule fired on, before the lines
     * @param  Record  $after  the same after the lines
     */
    public function __construct(
        public Rule $rule,
        public Change $cause,
        public ?int $parent,
        public int $epoch,
        public string $guardKey,
        public Verdict $why,
        public Performance $performance,
        public Record $before,
        public Record $after,
    ) {
    }

    public function parent(): ?int
    {
        return $this->parent;
    }
}

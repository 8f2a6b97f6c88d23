<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Explain\Verdict;
use VividLedger\Record\Change;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;

/** A rule that fires on a change, and what its lines did. */
final readonly class Firing
{
    /**
     * @param  Change  $cause  the change the rule answered
     * @param  ?int  $parent  place in the decision of the firing whose lines made that change; null for the save itself
     * @param  Record  $before  the record before the lines
     * @param  Record  $after  the record after the lines
     */
    public function __construct(
        public Rule $rule,
        public Change $cause,
        public ?int $parent,
        public string $guardKey,
        public Verdict $why,
        public Performance $performance,
        public Record $before,
        public Record $after,
    ) {
    }
}

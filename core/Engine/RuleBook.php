<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Record\Change;
use VividLedger\Rule\Rule;

/** The rules in force, found by what they watch, so that a change costs only what its relevant rules cost. */
interface RuleBook extends Pages
{
    /** @return iterable<Rule> exactly the rules that look at the change, in the order the administrator set */
    public function relevantTo(Change $change): iterable;

    /**
     * The references through which rules count or go through records like the changed one, so far as the change may alter what they
     * see: whoever is named there is held before the change is answered.
     *
     * @return list<string> names of reference fields
     */
    public function readOver(Change $change): array;

    /** Whether a run that is in play on the changed record may end or move through the change. */
    public function mayTouchRuns(Change $change): bool;
}

<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Record\Record;

/** All that follows from one change: what happened, in order, and the records as they are in the end. */
final readonly class Decision
{
    /**
     * @param  ?Record  $after  the changed record as it is in the end; null when it was deleted
     * @param  list<Step>  $steps
     * @param  list<array{?Record, Record}>  $others  other records that changed, as they were (null: did not exist) and are
     * @param  array<string, int>  $turns  whose turn was taken, by team
     */
    public function __construct(
        public ?Record $after,
        public array $steps = [],
        public array $others = [],
        public array $turns = [],
        public ?Refusal $refusal = null,
    ) {
    }

    /** Whether lines sent messages, which limits of later decisions count. */
    public function sends(): bool
    {
        foreach ($this->steps as $step) {
            if ($step instanceof ExecutedStep && $step->rule->limits !== null && $step->performance->messages !== []) {
                return true;
            }
        }

        return false;
    }

    /** @return list<Firing> */
    public function firings(): array
    {
        return array_values(array_filter($this->steps, static fn (Step $step): bool => $step instanceof Firing));
    }
}

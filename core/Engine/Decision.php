<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Record\Record;

/** All that follows from one change: what fired, in order, and the record as it is in the end. */
final readonly class Decision
{
    /** @param  list<Firing|Stopped>  $steps */
    public function __construct(
        public ?Record $after,
        public array $steps = [],
    ) {
    }

    /** @return list<Firing> */
    public function firings(): array
    {
        return array_values(array_filter($this->steps, static fn (Firing|Stopped $step): bool => $step instanceof Firing));
    }
}

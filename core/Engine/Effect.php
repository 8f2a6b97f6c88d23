<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Record\Change;

/** A change that the lines of a firing made to another record, or an event they caused. */
final readonly class Effect implements Step
{
    /** @param  int  $parent  place in the decision of the firing */
    public function __construct(
        public Change $change,
        public int $parent,
    ) {
    }

    public function parent(): int
    {
        return $this->parent;
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Facts\PencilledLine;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;

/** A line that fell due so long ago that it is left out. */
final readonly class TooLate implements Step
{
    public function __construct(
        public PencilledLine $line,
        public Rule $rule,
        public Record $record,
        public string $because,
    ) {
    }

    public function parent(): ?int
    {
        return null;
    }
}

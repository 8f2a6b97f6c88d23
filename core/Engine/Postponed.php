<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Facts\PencilledLine;
use VividLedger\Record\Record;

/** A line that fell due at a moment that is not allowed, and waits for the next one that is. */
final readonly class Postponed implements Step
{
    public function __construct(
        public PencilledLine $line,
        public Record $record,
        public \DateTimeImmutable $until,
        public string $because,
    ) {
    }

    public function parent(): ?int
    {
        return null;
    }
}

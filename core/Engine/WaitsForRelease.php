<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Facts\Lock;
use VividLedger\Facts\PencilledLine;
use VividLedger\Record\Record;

/** A line that fell due on a record that is locked, and waits until it is free. */
final readonly class WaitsForRelease implements Step
{
    public function __construct(public PencilledLine $line, public Record $record, public Lock $lock)
    {
    }

    public function parent(): ?int
    {
        return null;
    }
}

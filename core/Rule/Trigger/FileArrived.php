<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Record\EventKind;

/** Somebody put a file on the record. */
final readonly class FileArrived extends EventHappened
{
    protected static function event(): EventKind
    {
        return EventKind::File;
    }
}

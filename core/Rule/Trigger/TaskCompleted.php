<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Record\EventKind;

/** A task on the record was done. */
final readonly class TaskCompleted extends EventHappened
{
    protected static function event(): EventKind
    {
        return EventKind::TaskDone;
    }
}

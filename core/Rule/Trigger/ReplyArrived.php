<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Record\EventKind;

/** Somebody answered a message about the record. */
final readonly class ReplyArrived extends EventHappened
{
    protected static function event(): EventKind
    {
        return EventKind::Reply;
    }
}

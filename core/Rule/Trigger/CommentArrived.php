<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Record\EventKind;

/** Somebody wrote a comment on the record. */
final readonly class CommentArrived extends EventHappened
{
    protected static function event(): EventKind
    {
        return EventKind::Comment;
    }
}

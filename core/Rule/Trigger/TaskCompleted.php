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

    protected static function otherwise(): array
    {
        return [
            '{subject} has a task (completed|finished|done)',
            '(someone|somebody|anyone) (completes|finishes|does) a task[ (of|on|for) {subject}]',
            'a task[ (of|on|for) {subject}] (is done|is completed|is finished|gets done|was done)',
        ];
    }

    protected static function played(): array
    {
        return [OpeningKind::TaskDone, 'A task'];
    }
}

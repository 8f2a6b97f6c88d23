<?php

declare(strict_types=1);

namespace VividLedger\Record;

/** What can happen to a record besides a change of its fields. */
enum EventKind: string
{
    case Comment = 'comment';
    case File = 'file';
    case TaskDone = 'task_done';
    case ByHand = 'by_hand';

    /** As said of a record: "the ticket gets a comment". */
    public function label(): string
    {
        return match ($this) {
            self::Comment => 'gets a comment',
            self::File => 'gets a file',
            self::TaskDone => 'has a task done',
            self::ByHand => 'is run by hand',
        };
    }
}

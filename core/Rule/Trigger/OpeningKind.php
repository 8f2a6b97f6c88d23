<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Record\EventKind;

/** How a rehearsal begins. */
enum OpeningKind: string
{
    case Created = 'created';
    case Changed = 'changed';
    case Deleted = 'deleted';
    case Related = 'related';   // a related record is created or changed
    case Time = 'time';         // time sets the rule off
    case Comment = 'comment';
    case Reply = 'reply';
    case Slip = 'slip_answered';
    case Hook = 'hook_brought';
    case File = 'file';
    case TaskDone = 'task_done';
    case ByHand = 'by_hand';

    public function event(): ?EventKind
    {
        return match ($this) {
            self::Comment => EventKind::Comment,
            self::Reply => EventKind::Reply,
            self::Slip => EventKind::SlipAnswered,
            self::Hook => EventKind::HookBrought,
            self::File => EventKind::File,
            self::TaskDone => EventKind::TaskDone,
            self::ByHand => EventKind::ByHand,
            default => null,
        };
    }

    /** Whether a record is saved by it; otherwise what is set is how the record stands when it happens. */
    public function saves(): bool
    {
        return in_array($this, [self::Created, self::Changed, self::Related], true);
    }
}

<?php

declare(strict_types=1);

namespace App\Models\Outbound;

use VividLedger\Words\Words;

/** What can happen for somebody. */
enum NoticeKind: string
{
    case Note = 'note';         // a rule wrote to them
    case Task = 'task';         // they were given a task
    case Mention = 'mention';   // somebody named them in a comment

    public function label(): string
    {
        return match ($this) {
            self::Note => Words::say('Notes of rules'),
            self::Task => Words::say('Tasks you are given'),
            self::Mention => Words::say('Comments that name you'),
        };
    }
}

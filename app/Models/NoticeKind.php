<?php

declare(strict_types=1);

namespace App\Models;

/** What can happen for somebody. */
enum NoticeKind: string
{
    case Note = 'note';         // a rule wrote to them
    case Task = 'task';         // they were given a task
    case Mention = 'mention';   // somebody named them in a comment

    public function label(): string
    {
        return match ($this) {
            self::Note => 'Notes of rules',
            self::Task => 'Tasks you are given',
            self::Mention => 'Comments that name you',
        };
    }
}

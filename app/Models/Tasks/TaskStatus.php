<?php

declare(strict_types=1);

namespace App\Models\Tasks;

use VividLedger\Words\Words;

/** How far a task is. */
enum TaskStatus: string
{
    case Open = 'open';
    case Done = 'done';
    case Cancelled = 'cancelled';
    case Lapsed = 'lapsed';   // what its line names has taken its point

    /** As it is said of a task: "is done." */
    public function said(): string
    {
        return match ($this) {
            self::Open => Words::say('is open.'),
            self::Done => Words::say('is done.'),
            self::Cancelled => Words::say('was cancelled.'),
            self::Lapsed => Words::say('has lapsed.'),
        };
    }

    /** Whether nobody did it, and nobody need. */
    public function isGone(): bool
    {
        return $this === self::Cancelled || $this === self::Lapsed;
    }
}

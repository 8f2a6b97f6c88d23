<?php

declare(strict_types=1);

namespace App\Models\Timing;

use VividLedger\Record\EventKind;

/** What a pencilled row is about. */
enum LineSort: string
{
    /** A line of a run. */
    case Line = 'line';

    /** That a task falls due. */
    case Task = 'task';

    /** A start of a rule on a record that matched when the rule was put in force. */
    case Start = 'start';

    /** A start of a rule whose timetable came round. */
    case Round = 'round';

    /** What has happened when a start comes into ink. */
    public function event(): EventKind
    {
        return $this === self::Round ? EventKind::CameRound : EventKind::PutInForce;
    }
}

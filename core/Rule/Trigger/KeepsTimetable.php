<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Time\Timetable;

/** A trigger that comes by a timetable, whatever the records do. */
interface KeepsTimetable extends Gathers
{
    public function timetable(): Timetable;

    /** Names the round among all of the rule. */
    public function occasion(\DateTimeImmutable $moment): string;
}

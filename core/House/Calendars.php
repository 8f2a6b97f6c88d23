<?php

declare(strict_types=1);

namespace VividLedger\House;

use VividLedger\Time\WorkingCalendar;

/** Who works when: a person's own calendar, else the team's, else the company's. */
interface Calendars
{
    /** @param  ?Person  $person  null for the company's calendar */
    public function calendar(?Person $person): WorkingCalendar;
}

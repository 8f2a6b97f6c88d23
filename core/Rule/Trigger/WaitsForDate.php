<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

/** A trigger that comes at a date of the record, or so long before or after it. */
interface WaitsForDate
{
    public function arriving(): ArrivingDate;
}

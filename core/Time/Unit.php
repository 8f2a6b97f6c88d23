<?php

declare(strict_types=1);

namespace VividLedger\Time;

/**
 * Units of time. Minutes and hours are elapsed time; days to years keep the local time of day; working hours and working
 * days are counted by a working calendar.
 */
enum Unit: string
{
    case Minute = 'minute';
    case Hour = 'hour';
    case Day = 'day';
    case Week = 'week';
    case Month = 'month';
    case Year = 'year';
    case WorkingHour = 'working_hour';
    case WorkingDay = 'working_day';

    /** Shorter than a day, and so of no meaning for a date. */
    public function isShort(): bool
    {
        return $this === self::Minute || $this === self::Hour || $this === self::WorkingHour;
    }

    /** Whether it takes a working calendar to count it. */
    public function isWorking(): bool
    {
        return $this === self::WorkingHour || $this === self::WorkingDay;
    }

    public function label(int $amount): string
    {
        return $amount === 1 ? "1 {$this->word()}" : "{$amount} {$this->word()}s";
    }

    /** "working day" */
    public function word(): string
    {
        return str_replace('_', ' ', $this->value);
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Time;

/** Units of calendar time. Minutes and hours are elapsed time; the others keep the local time of day. */
enum Unit: string
{
    case Minute = 'minute';
    case Hour = 'hour';
    case Day = 'day';
    case Week = 'week';
    case Month = 'month';
    case Year = 'year';

    /** Shorter than a day, and so of no meaning for a date. */
    public function isShort(): bool
    {
        return $this === self::Minute || $this === self::Hour;
    }

    public function label(int $amount): string
    {
        return $amount === 1 ? "1 {$this->value}" : "{$amount} {$this->value}s";
    }
}

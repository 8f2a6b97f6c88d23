<?php

declare(strict_types=1);

namespace VividLedger\Time;

/** From a local date and time of day to the instant it names. */
final class LocalTime
{
    /** What is due on a day is late when the working day is over. */
    private const END_OF_DAY = '17:00:00';

    /** The instant at which a kept date begins, or the kept moment itself. */
    public static function start(string $value, \DateTimeZone $zone): \DateTimeImmutable
    {
        return self::of($value, $zone, '00:00:00');
    }

    /**
     * The instant that a kept date or moment means as something to count from.
     *
     * @param  string  $value  "2026-11-24", whose end of work is meant, or an instant
     */
    public static function of(string $value, \DateTimeZone $zone, string $time = self::END_OF_DAY): \DateTimeImmutable
    {
        if (strlen($value) > 10) {
            return new \DateTimeImmutable($value);
        }
        [$year, $month, $day] = array_map(intval(...), explode('-', $value));

        return self::instant($year, $month, $day, $time, $zone);
    }

    /**
     * @param  int  $day  may lie outside the month, and then counts on from it
     * @param  string  $time  "HH:MM:SS"
     * @return \DateTimeImmutable in UTC; a skipped local time moves forward by the gap, a repeated one is the first
     */
    public static function instant(int $year, int $month, int $day, string $time, \DateTimeZone $zone): \DateTimeImmutable
    {
        $utc = new \DateTimeZone('UTC');
        [$hour, $minute, $second] = array_map(intval(...), explode(':', $time));
        $wall = (new \DateTimeImmutable('2000-01-01', $utc))->setDate($year, $month, $day)->setTime($hour, $minute, $second);
        $seconds = $wall->getTimestamp();

        // The offset before any clock change of these days gives the first of a repeated time, and for a skipped time
        // the same elapsed time after midnight, which is the local time moved forward by the gap.
        $offset = $zone->getOffset($wall->setTimestamp($seconds - 86400));
        $instant = $wall->setTimestamp($seconds - $offset);
        $isThat = $zone->getOffset($instant) === $offset;
        if (! $isThat) {
            $later = $wall->setTimestamp($seconds - $zone->getOffset($instant));
            // After a clock change the later offset holds; inside a gap neither does, and the earlier one is kept.
            if ($zone->getOffset($later) === $zone->getOffset($instant) && $later->getTimestamp() + $zone->getOffset($later) === $seconds) {
                return $later;
            }
        }

        return $instant;
    }
}

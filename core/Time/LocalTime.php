<?php

declare(strict_types=1);

namespace VividLedger\Time;

/** From a local date and time of day to the instant it names. */
final class LocalTime
{
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

<?php

declare(strict_types=1);

namespace VividLedger\Time;

/** What "today" and "this week" mean to somebody who works by a calendar: a week is over when its last working day is. */
final readonly class WorkingWeek
{
    /** How many weeks without work are passed over. */
    private const MOST_WEEKS = 12;

    private function __construct(
        public \DateTimeImmutable $todayEnds,
        public \DateTimeImmutable $weekEnds,
        /** When something is due that is to be done today, this week, or next week: when work ends on the last day for it. */
        public \DateTimeImmutable $dueToday,
        public \DateTimeImmutable $dueThisWeek,
        public \DateTimeImmutable $dueNextWeek,
    ) {
    }

    public static function at(\DateTimeImmutable $now, WorkingCalendar $calendar): self
    {
        $today = $now->setTimezone($calendar->zone)->setTime(0, 0);
        $tomorrow = $today->modify('+1 day');
        $evening = self::evening($today, $calendar);
        $last = self::lastDay($today, $calendar);
        $monday = $last->modify('monday next week');

        return new self(
            $tomorrow,
            $last->modify('+1 day'),
            $evening > $now ? $evening : $tomorrow->modify('-1 minute'),
            self::evening($last, $calendar),
            self::evening(self::lastDay($monday, $calendar), $calendar),
        );
    }

    /** The last working day of the week that is begun; when work on it is over, that of the next one that has any. */
    private static function lastDay(\DateTimeImmutable $from, WorkingCalendar $calendar): \DateTimeImmutable
    {
        for ($day = $from, $weeks = 0; $weeks < self::MOST_WEEKS; $day = $day->modify('monday next week'), $weeks++) {
            $last = null;
            for ($each = $day; $each < $day->modify('monday next week'); $each = $each->modify('+1 day')) {
                $last = $calendar->isWorkingDay($each, $calendar->zone) ? $each : $last;
            }
            if ($last !== null) {
                return $last;
            }
        }

        return $from->modify('sunday this week');
    }

    private static function evening(\DateTimeImmutable $day, WorkingCalendar $calendar): \DateTimeImmutable
    {
        $midnight = $day->modify('+1 day');

        return min($calendar->endOfDay($day) ?? $midnight, $midnight->modify('-1 minute'));
    }
}

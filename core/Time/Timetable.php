<?php

declare(strict_types=1);

namespace VividLedger\Time;

use VividLedger\Words\Words;

/** When something comes round: on the days of a recurrence, at a time of day, if wanted on working days only. */
final readonly class Timetable
{
    /** What comes round on working days alone may be put off by holidays again and again, but not for longer than this. */
    private const MOST_HOLIDAYS = 400;

    /** More moments of one span than this nobody asks for. */
    private const MOST_MOMENTS = 4000;

    private function __construct(private Recurrence $days, private string $time, private bool $workingDays)
    {
    }

    /**
     * @param  string  $rule  such as FREQ=WEEKLY;BYDAY=MO
     * @param  string  $from  "2026-11-24", the first day it can come round; every other week is counted from it
     *
     * @throws InvalidTimetable when it cannot be read, cannot be said in words, or never comes round
     */
    public static function of(string $rule, string $time, string $from, bool $workingDays): self
    {
        if (preg_match('/^([01]\d|2[0-3]):[0-5]\d$/', $time) !== 1) {
            throw new InvalidTimetable(Words::say('Give a time of day, such as 08:00.'));
        }
        if (preg_match('/^(\d{4})-(\d{2})-(\d{2})$/', $from, $day) !== 1 || $day[1] < '1000'
            || ! checkdate((int) $day[2], (int) $day[3], (int) $day[1])) {
            throw new InvalidTimetable(Words::say('Give the first day, such as 2026-12-01.'));
        }

        return new self(Recurrence::of($rule, self::day(new \DateTimeImmutable("{$from}T00:00:00Z"))), $time, $workingDays);
    }

    /**
     * When it comes round behind one instant and not behind another.
     *
     * @return list<\DateTimeImmutable> in order
     */
    public function between(\DateTimeImmutable $after, \DateTimeImmutable $until, \DateTimeZone $zone, WorkingCalendar $calendar): array
    {
        $found = [];
        while (($next = $this->next($after, $zone, $calendar)) !== null && $next <= $until && count($found) < self::MOST_MOMENTS) {
            $found[] = $after = $next;
        }

        return $found;
    }

    /** The latest moment at which it came round behind one instant and not behind another; the earlier ones are not reckoned. */
    public function last(
        \DateTimeImmutable $after,
        \DateTimeImmutable $until,
        \DateTimeZone $zone,
        WorkingCalendar $calendar,
    ): ?\DateTimeImmutable {
        $first = self::day($after->setTimezone($zone)) - 1;
        for ($day = self::day($until->setTimezone($zone)) + 1; $day >= $first; $day--) {
            $moment = $this->days->isOn($day) ? $this->moment($day, $zone) : null;
            if ($moment !== null && $moment > $after && $moment <= $until
                && (! $this->workingDays || $calendar->isWorkingDay($moment, $zone))) {
                return $moment;
            }
        }

        return null;
    }

    /** The next time it comes round; null when it does not any more. */
    public function next(\DateTimeImmutable $after, \DateTimeZone $zone, WorkingCalendar $calendar): ?\DateTimeImmutable
    {
        $day = $this->days->next(self::day($after->setTimezone($zone)) - 2);
        for ($tries = 0; $tries < self::MOST_HOLIDAYS && $day !== null; $tries++, $day = $this->days->next($day)) {
            $moment = $this->moment($day, $zone);
            if ($moment > $after && (! $this->workingDays || $calendar->isWorkingDay($moment, $zone))) {
                return $moment;
            }
        }

        return null;
    }

    /** "every 2 weeks on Monday and Friday at 08:00, on working days, 10 times" */
    public function said(): string
    {
        return "{$this->days->said()} at {$this->time}".($this->workingDays ? ', on working days' : '').$this->days->endSaid();
    }

    private function moment(int $day, \DateTimeZone $zone): \DateTimeImmutable
    {
        [$year, $month, $date] = array_map(intval(...), explode('-', gmdate('Y-n-j', $day * 86_400)));

        return LocalTime::instant($year, $month, $date, "{$this->time}:00", $zone);
    }

    /** Days since 1 January 1970 of a local date. */
    private static function day(\DateTimeImmutable $local): int
    {
        return (int) floor((new \DateTimeImmutable($local->format('Y-m-d').'T00:00:00Z'))->getTimestamp() / 86_400);
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Time;

use VividLedger\Words\Words;

/** Hours of the week in which work is done, in local time, and the days on which it is not. */
final readonly class WorkingHours
{
    /**
     * @param  array<int, list<array{int, int}>>  $week  by ISO weekday, 1 is Monday: spans in minutes after midnight, in order and apart
     * @param  array<string, true>  $holidays  "2026-12-25"
     */
    private function __construct(
        private array $week,
        private array $holidays,
    ) {
    }

    /**
     * Reads {"1": [["08:30", "17:00"]], …}; "24:00" is the start of the next day.
     *
     * @param  array<mixed>  $hours
     * @param  list<mixed>  $holidays
     *
     * @throws InvalidCalendar when a time cannot be read, spans overlap, or there are no hours at all
     */
    public static function of(array $hours, array $holidays): self
    {
        $week = [];
        foreach ($hours as $weekday => $spans) {
            if (preg_match('/^[1-7]$/', (string) $weekday) !== 1 || ! is_array($spans)) {
                throw new InvalidCalendar(Words::say('There is no weekday {weekday}; 1 is Monday and 7 is Sunday.', weekday: $weekday));
            }
            $end = 0;
            foreach ($spans as $span) {
                [$from, $to] = is_array($span) ? [self::minutes($span[0] ?? null), self::minutes($span[1] ?? null)] : [1440, 0];
                if ($to <= $from || $from < $end) {
                    throw new InvalidCalendar(
                        Words::say('A span of working hours ends after it begins, and begins when the one before it is over.'),
                    );
                }
                $week[(int) $weekday][] = [$from, $to];
                $end = $to;
            }
        }
        if ($week === []) {
            throw new InvalidCalendar(Words::say('A working calendar needs some working hours.'));
        }
        $free = [];
        foreach ($holidays as $holiday) {
            if (! is_string($holiday) || preg_match('/^(\d{4})-(\d{2})-(\d{2})$/', $holiday, $part) !== 1
                || ! checkdate((int) $part[2], (int) $part[3], (int) $part[1])) {
                throw new InvalidCalendar(Words::say('A holiday is a date, written as 2026-12-25.'));
            }
            $free[$holiday] = true;
        }

        return new self($week, $free);
    }

    /**
     * @param  int  $day  days since 1 January 1970
     * @return list<array{int, int}> the spans of that day, in minutes after its midnight
     */
    public function on(int $day): array
    {
        // 1 January 1970 was a Thursday.
        $spans = $this->week[(($day + 3) % 7 + 7) % 7 + 1] ?? [];

        return $spans !== [] && ! isset($this->holidays[gmdate('Y-m-d', $day * 86_400)]) ? $spans : [];
    }

    /** @param  list<string>  $days  further holidays, "2026-12-25" */
    public function withHolidays(array $days): self
    {
        return new self($this->week, $this->holidays + array_fill_keys($days, true));
    }

    private static function minutes(mixed $time): int
    {
        if (! is_string($time) || preg_match('/^([01]\d|2[0-4]):([0-5]\d)$/', $time, $part) !== 1
            || ($part[1] === '24' && $part[2] !== '00')) {
            throw new InvalidCalendar(Words::say('A time of day is written as 08:30, from 00:00 to 24:00.'));
        }

        return 60 * (int) $part[1] + (int) $part[2];
    }
}

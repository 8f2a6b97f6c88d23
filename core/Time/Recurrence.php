<?php

declare(strict_types=1);

namespace VividLedger\Time;

use VividLedger\Words\Words;

/**
 * The days on which something comes round: a recurrence rule (RFC 5545, section 3.3.10) as far as it can be said in words. A day
 * is asked about by itself, so that no question runs further than the days it is about. Days are counted from 1 January 1970.
 */
final readonly class Recurrence
{
    private const WEEKDAYS = [
        'MO' => 'Monday', 'TU' => 'Tuesday', 'WE' => 'Wednesday', 'TH' => 'Thursday', 'FR' => 'Friday', 'SA' => 'Saturday',
        'SU' => 'Sunday',
    ];

    private const MONTHS = [
        1 => 'January', 'February', 'March', 'April', 'May', 'June', 'July', 'August', 'September', 'October', 'November', 'December',
    ];

    private const LONGEST_MONTH = [1 => 31, 29, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];

    private const NTH = [1 => 'first', 'second', 'third', 'fourth', 'fifth'];

    private const UNITS = ['DAILY' => 'day', 'WEEKLY' => 'week', 'MONTHLY' => 'month', 'YEARLY' => 'year'];

    private const PARTS = ['FREQ', 'INTERVAL', 'BYDAY', 'BYMONTHDAY', 'BYMONTH', 'UNTIL', 'COUNT'];

    private const MOST_TIMES = 1000;

    /** Within forty years every rule that comes round at all has done so, leap days and every hundredth week included. */
    private const HORIZON = 40 * 366;

    /**
     * @param  list<array{int, int}>  $weekdays  the how-manieth in its month, or 0 for each, and the weekday from 1 for Monday
     * @param  list<int>  $dates  days of the month; negative ones count from its end
     * @param  list<int>  $months
     * @param  ?int  $until  the last day it can come round
     */
    private function __construct(
        private string $freq,
        private int $interval,
        private array $weekdays,
        private array $dates,
        private array $months,
        private int $from,
        private ?int $until,
        private ?int $count,
        private ?string $end,
    ) {
    }

    /**
     * @param  int  $from  the first day it can come round; every other week is counted from it
     *
     * @throws InvalidTimetable with what cannot be read, cannot be said in words, or never comes
     */
    public static function of(string $rule, int $from): self
    {
        $parts = self::parts($rule);
        [$weekdays, $dates, $months] = [
            self::weekdays($parts), self::numbers($parts, 'BYMONTHDAY', 31), self::numbers($parts, 'BYMONTH', 12),
        ];
        self::check($parts['FREQ'], $weekdays, $dates, $months, $from);
        $end = isset($parts['UNTIL']) ? self::day($parts['UNTIL']) : null;
        if ($end !== null && $end < $from) {
            throw new InvalidTimetable(Words::say('It would end before it starts.'));
        }
        $endless = new self(
            freq: $parts['FREQ'], interval: self::number($parts, 'INTERVAL', 1, 999) ?? 1, weekdays: $weekdays, dates: $dates,
            months: $months, from: $from, until: null, count: null, end: null,
        );
        if ($endless->next($from - 1) === null) {
            throw new InvalidTimetable(Words::say('This never comes round. Choose a day that exists.'));
        }
        $count = self::number($parts, 'COUNT', 1, self::MOST_TIMES);
        $last = $end;
        if ($count !== null) {
            // The day of the last time takes its place: then nothing has to be counted again.
            for ($last = $from - 1, $left = $count; $left > 0 && $last !== null; $left--) {
                $last = $endless->next($last);
            }
            $last = $end === null || ($last !== null && $last < $end) ? $last : $end;
        }
        $said = $end === null ? null : gmdate('Y-m-d', $end * 86_400);
        $made = new self(
            freq: $parts['FREQ'], interval: $endless->interval, weekdays: $weekdays, dates: $dates, months: $months, from: $from,
            until: $last, count: $count, end: $said,
        );
        if ($made->next($from - 1) === null) {
            throw new InvalidTimetable(Words::say('It ends before it has come round once.'));
        }

        return $made;
    }

    public function isOn(int $day): bool
    {
        if ($day < $this->from || ($this->until !== null && $day > $this->until)) {
            return false;
        }
        [$year, $month, $date, $weekday, $length] = array_map(intval(...), explode(' ', gmdate('Y n j N t', $day * 86_400)));
        if ($this->months !== [] && ! in_array($month, $this->months, true)) {
            return false;
        }
        [$fromYear, $fromMonth, $fromDate, $fromWeekday] = array_map(intval(...), explode(' ', gmdate('Y n j N', $this->from * 86_400)));
        $passed = match ($this->freq) {
            'DAILY' => $day - $this->from,
            'WEEKLY' => intdiv($day - ($weekday - 1) - ($this->from - ($fromWeekday - 1)), 7),
            'MONTHLY' => ($year - $fromYear) * 12 + $month - $fromMonth,
            default => $year - $fromYear,
        };
        if ($passed % $this->interval !== 0) {
            return false;
        }
        if ($this->weekdays !== []) {
            foreach ($this->weekdays as [$nth, $wanted]) {
                if ($wanted === $weekday
                    && ($nth === 0 || $nth === intdiv($date - 1, 7) + 1 || $nth === -(intdiv($length - $date, 7) + 1))) {
                    return true;
                }
            }

            return false;
        }

        return match (true) {
            $this->dates !== [] => in_array($date, $this->dates, true) || in_array($date - $length - 1, $this->dates, true),
            $this->freq === 'WEEKLY' => $weekday === $fromWeekday,
            $this->freq === 'DAILY' => true,
            default => $date === $fromDate && ($this->freq === 'MONTHLY' || $this->months !== [] || $month === $fromMonth),
        };
    }

    /** The next day behind one; null when none comes, or not for decades. */
    public function next(int $after): ?int
    {
        $day = max($after + 1, $this->from);
        for ($last = min($day + self::HORIZON, $this->until ?? PHP_INT_MAX); $day <= $last; $day++) {
            if ($this->isOn($day)) {
                return $day;
            }
        }

        return null;
    }

    /** "every 2 weeks on Monday and Friday", with all that the rule says. */
    public function said(): string
    {
        $unit = self::UNITS[$this->freq];
        $every = $this->interval === 1 ? "every {$unit}" : "every {$this->interval} {$unit}s";
        $weekdays = self::listed(array_map($this->weekday(...), $this->weekdays));
        $dates = self::listed(array_map(self::date(...), $this->dates));
        $months = self::listed(array_map(static fn (int $month): string => self::MONTHS[$month], $this->months));
        $first = gmdate('j', $this->from * 86_400);
        $text = match (true) {
            $this->freq === 'YEARLY' => "{$every} on ".match (true) {
                $months === '' => "{$first} ".self::MONTHS[(int) gmdate('n', $this->from * 86_400)],
                $weekdays.$dates !== '' => "{$weekdays}{$dates} of {$months}",
                default => "day {$first} of {$months}",
            },
            $this->freq === 'WEEKLY' && $weekdays !== '' && $this->interval === 1 => "every {$weekdays}",
            $this->freq === 'WEEKLY' => "{$every} on ".($weekdays === ''
                ? array_values(self::WEEKDAYS)[(int) gmdate('N', $this->from * 86_400) - 1] : $weekdays),
            $this->freq === 'MONTHLY' => "{$every} on ".($weekdays.$dates === '' ? "day {$first}" : $weekdays.$dates),
            default => $every.($weekdays.$dates === '' ? '' : ", only on {$weekdays}{$dates}"),
        };

        return $text.($this->freq !== 'YEARLY' && $months !== '' ? ", only in {$months}" : '');
    }

    /** ", 10 times, until 2027-12-31" */
    public function endSaid(): string
    {
        return ($this->count === null ? '' : ', '.($this->count === 1 ? 'once' : "{$this->count} times")).($this->end === null ? ''
            : ", until {$this->end}");
    }

    /** @return array<string, string> with FREQ */
    private static function parts(string $rule): array
    {
        $parts = [];
        foreach (explode(';', strtoupper(trim($rule))) as $part) {
            [$name, $value] = explode('=', $part, 2) + [1 => ''];
            if (! in_array($name, self::PARTS, true) || isset($parts[$name])) {
                throw new InvalidTimetable(
                    isset($parts[$name]) ? Words::say(
                        '‘{name}’ stands there twice.',
                        name: $name,
                    ) : Words::say('‘{name}’ is no part of a timetable here.', name: $name),
                );
            }
            $parts[$name] = $value;
        }
        if (! isset(self::UNITS[$parts['FREQ'] ?? ''])) {
            throw new InvalidTimetable(Words::say('A timetable comes round by the day, the week, the month or the year.'));
        }

        return $parts;
    }

    /**
     * @param  list<array{int, int}>  $weekdays
     * @param  list<int>  $dates
     * @param  list<int>  $months
     */
    private static function check(string $freq, array $weekdays, array $dates, array $months, int $from): void
    {
        $first = (int) gmdate('j', $from * 86_400);
        $days = $dates !== [] ? $dates : ($weekdays === [] && ($freq === 'MONTHLY' || $freq === 'YEARLY') ? [$first] : []);
        if ($weekdays !== [] && $dates !== []) {
            throw new InvalidTimetable(Words::say('Choose weekdays or days of the month, not both.'));
        }
        if ($freq === 'WEEKLY' && $dates !== []) {
            throw new InvalidTimetable(Words::say('A week has weekdays, such as BYDAY=MO.'));
        }
        if (array_filter($weekdays, static fn (array $day): bool => $day[0] !== 0) !== [] && $freq !== 'MONTHLY' && $freq !== 'YEARLY') {
            throw new InvalidTimetable(Words::say('“The first Monday” goes with months.'));
        }
        if ($freq === 'YEARLY' && $months === [] && ($weekdays !== [] || $dates !== [])) {
            throw new InvalidTimetable(Words::say('Say in which months of the year, such as BYMONTH=3.'));
        }
        if ($freq === 'MONTHLY' && $months === [] && array_filter($days, static fn (int $day): bool => abs($day) > 28) !== []) {
            throw new InvalidTimetable(Words::say('Not every month has that day. Choose its last day, or a day up to the 28th.'));
        }
        foreach ($months as $month) {
            foreach ($days as $day) {
                if (abs($day) > self::LONGEST_MONTH[$month]) {
                    throw new InvalidTimetable(Words::say('There is no {day} {months}.', day: abs($day), months: self::MONTHS[$month]));
                }
            }
        }
    }

    /**
     * @param  array<string, string>  $parts
     * @return list<array{int, int}>
     */
    private static function weekdays(array $parts): array
    {
        $days = [];
        foreach (isset($parts['BYDAY']) ? explode(',', $parts['BYDAY']) : [] as $day) {
            if (preg_match('/^([+-]?[1-5])?(MO|TU|WE|TH|FR|SA|SU)$/', $day, $found) !== 1) {
                throw new InvalidTimetable(Words::say('‘{day}’ is no weekday here. Write MO, or 1MO for the first Monday.', day: $day));
            }
            $days[] = [(int) $found[1], (int) array_search($found[2], array_keys(self::WEEKDAYS), true) + 1];
        }

        return $days;
    }

    /**
     * @param  array<string, string>  $parts
     * @return list<int>
     */
    private static function numbers(array $parts, string $name, int $most): array
    {
        $numbers = [];
        foreach (isset($parts[$name]) ? explode(',', $parts[$name]) : [] as $number) {
            if (preg_match('/^[+-]?\d{1,2}$/', $number) !== 1 || (int) $number === 0 || abs((int) $number) > $most
                || ($name === 'BYMONTH' && (int) $number < 0)) {
                throw new InvalidTimetable(Words::say('‘{number}’ does not fit {name}.', number: $number, name: $name));
            }
            $numbers[] = (int) $number;
        }

        return $numbers;
    }

    /** @param  array<string, string>  $parts */
    private static function number(array $parts, string $name, int $least, int $most): ?int
    {
        $value = $parts[$name] ?? null;
        if ($value !== null && (preg_match('/^\d{1,6}$/', $value) !== 1 || (int) $value < $least || (int) $value > $most)) {
            throw new InvalidTimetable(Words::say('{name} is a number from {least} to {most}.', name: $name, least: $least, most: $most));
        }

        return $value === null ? null : (int) $value;
    }

    private static function day(string $until): int
    {
        if (preg_match('/^(\d{4})(\d{2})(\d{2})(T\d{6}Z?)?$/', $until, $part) !== 1
            || ! checkdate((int) $part[2], (int) $part[3], (int) $part[1])) {
            throw new InvalidTimetable(Words::say('UNTIL is a day, such as 20271231.'));
        }

        return intdiv((int) gmmktime(0, 0, 0, (int) $part[2], (int) $part[3], (int) $part[1]), 86_400);
    }

    /** @param  array{int, int}  $day */
    private function weekday(array $day): string
    {
        $name = array_values(self::WEEKDAYS)[$day[1] - 1];

        return match (true) {
            $day[0] === 0 => $this->freq === 'MONTHLY' || $this->freq === 'YEARLY' ? "every {$name}" : $name,
            $day[0] > 0 => 'the '.self::NTH[$day[0]]." {$name}",
            $day[0] === -1 => "the last {$name}",
            default => 'the '.self::NTH[-$day[0]]." to last {$name}",
        };
    }

    private static function date(int $date): string
    {
        $nth = self::NTH[abs($date)] ?? null;

        return match (true) {
            $date > 0 => "day {$date}",
            $date === -1 => 'the last day',
            $nth !== null => "the {$nth} to last day",
            default => 'day '.-$date.' from the end',
        };
    }

    /** @param  list<string>  $parts */
    private static function listed(array $parts): string
    {
        $last = array_pop($parts);

        return $parts === [] ? (string) $last : implode(', ', $parts)." and {$last}";
    }
}

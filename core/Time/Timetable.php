<?php

declare(strict_types=1);

namespace VividLedger\Time;

use Sabre\VObject\InvalidDataException;
use Sabre\VObject\Recur\RRuleIterator;

/** When something comes round: a recurrence rule (RFC 5545, section 3.3.10) at a time of day, if wanted on working days only. */
final readonly class Timetable
{
    private const WEEKDAYS = ['MO' => 'Monday', 'TU' => 'Tuesday', 'WE' => 'Wednesday', 'TH' => 'Thursday', 'FR' => 'Friday', 'SA' => 'Saturday', 'SU' => 'Sunday'];

    private const UNITS = ['DAILY' => 'day', 'WEEKLY' => 'week', 'MONTHLY' => 'month', 'YEARLY' => 'year'];

    /** Nobody waits longer for a timetable to come round, and a rule that never does still comes to an end. */
    private const MOST_STEPS = 4000;

    /** @param  array<string, string>  $parts  of the rule, by name */
    private function __construct(private string $rule, private array $parts, private string $time, private string $from, private bool $workingDays)
    {
    }

    /**
     * @param  string  $from  "2026-11-24", the first day it can come round; every other week is counted from it
     *
     * @throws InvalidTimetable
     */
    public static function of(string $rule, string $time, string $from, bool $workingDays): self
    {
        if (preg_match('/^([01]\d|2[0-3]):[0-5]\d$/', $time) !== 1) {
            throw new InvalidTimetable('Give a time of day, such as 08:00.');
        }
        if (preg_match('/^(\d{4})-(\d{2})-(\d{2})$/', $from, $day) !== 1 || ! checkdate((int) $day[2], (int) $day[3], (int) $day[1])) {
            throw new InvalidTimetable('Give the first day, such as 2026-12-01.');
        }
        $parts = [];
        foreach (explode(';', strtoupper(trim($rule))) as $part) {
            [$name, $value] = explode('=', $part, 2) + [1 => ''];
            $parts[$name] = $value;
        }
        if (! isset(self::UNITS[$parts['FREQ'] ?? ''])) {
            throw new InvalidTimetable('A timetable comes round by the day, the week, the month or the year.');
        }
        foreach (array_keys($parts) as $name) {
            if (! in_array($name, ['FREQ', 'INTERVAL', 'BYDAY', 'BYMONTHDAY', 'BYMONTH', 'UNTIL', 'COUNT'], true)) {
                throw new InvalidTimetable("‘{$name}’ is no part of a timetable here.");
            }
        }
        if ($parts['FREQ'] === 'MONTHLY' && array_intersect(explode(',', $parts['BYMONTHDAY'] ?? ''), ['29', '30', '31']) !== []) {
            throw new InvalidTimetable('Not every month has that day. Choose its last day, or a day up to the 28th.');
        }
        if (isset($parts['UNTIL']) && substr($parts['UNTIL'], 0, 8) < str_replace('-', '', $from)) {
            throw new InvalidTimetable('It would end before it starts.');
        }
        $timetable = new self($rule, $parts, $time, $from, $workingDays);
        try {
            $timetable->iterator(new \DateTimeZone('UTC'))->valid();
        } catch (InvalidDataException) {
            throw new InvalidTimetable('This is not a recurrence rule, such as FREQ=WEEKLY;BYDAY=MO.');
        }

        return $timetable;
    }

    /**
     * When it comes round behind one instant and not behind another, in the zone of the company.
     *
     * @return list<\DateTimeImmutable> in order
     */
    public function between(\DateTimeImmutable $after, \DateTimeImmutable $until, \DateTimeZone $zone, WorkingCalendar $calendar): array
    {
        $iterator = $this->iterator($zone, $after);
        $iterator->fastForward($after->setTimezone($zone)->modify('-1 day'));
        $found = [];
        for ($steps = 0; $iterator->valid() && $steps < self::MOST_STEPS; $steps++) {
            $current = $iterator->current();
            if (! $current instanceof \DateTimeInterface) {
                break;
            }
            [$year, $month, $day] = array_map(intval(...), explode('-', $current->format('Y-n-j')));
            $moment = LocalTime::instant($year, $month, $day, "{$this->time}:00", $zone);
            if ($moment > $until) {
                break;
            }
            if ($moment > $after && (! $this->workingDays || $calendar->isWorkingDay($moment, $zone))) {
                $found[] = $moment;
            }
            $iterator->next();
        }

        return $found;
    }

    /** "every 2 weeks on Monday and Friday at 08:00, on working days" */
    public function said(): string
    {
        $interval = max(1, (int) ($this->parts['INTERVAL'] ?? 1));
        $unit = self::UNITS[$this->parts['FREQ']];
        $days = array_filter(explode(',', $this->parts['BYDAY'] ?? ''));
        $dates = array_filter(explode(',', $this->parts['BYMONTHDAY'] ?? ''));
        $every = $interval === 1 ? "every {$unit}" : "every {$interval} {$unit}s";
        $on = match (true) {
            $days !== [] && $interval === 1 && $unit === 'week' => '',
            $days !== [] => ' on '.self::listed(array_map(self::weekday(...), $days)),
            $dates !== [] => ' on '.self::listed(array_map(static fn (string $date): string => $date === '-1' ? 'the last day' : 'day '.$date, $dates)),
            default => '',
        };
        if ($on === '' && $days !== []) {
            $every = 'every '.self::listed(array_map(self::weekday(...), $days));
        }
        $until = isset($this->parts['UNTIL']) ? ', until '.preg_replace('/^(\d{4})(\d{2})(\d{2}).*$/', '$1-$2-$3', $this->parts['UNTIL']) : '';

        return "{$every}{$on} at {$this->time}".($this->workingDays ? ', on working days' : '').$until;
    }

    /** What comes round each time alike need not be counted from its first day on. */
    private function iterator(\DateTimeZone $zone, ?\DateTimeImmutable $after = null): RRuleIterator
    {
        $from = $this->from;
        $isAlike = ($this->parts['INTERVAL'] ?? '1') === '1' && ! isset($this->parts['COUNT']) && ($this->parts['FREQ'] === 'DAILY' || isset($this->parts['BYDAY']) || isset($this->parts['BYMONTHDAY']));
        if ($after !== null && $isAlike && $this->parts['FREQ'] !== 'YEARLY') {
            $from = max($from, $after->setTimezone($zone)->modify('-40 days')->format('Y-m-d'));
        }

        return new RRuleIterator($this->rule, new \DateTimeImmutable("{$from} {$this->time}", $zone));
    }

    private static function weekday(string $day): string
    {
        $name = self::WEEKDAYS[substr($day, -2)] ?? $day;

        return match (substr($day, 0, -2)) {
            '' => $name,
            '-1' => "the last {$name}",
            '1' => "the first {$name}",
            '2' => "the second {$name}",
            '3' => "the third {$name}",
            default => 'the '.substr($day, 0, -2)."th {$name}",
        };
    }

    /** @param  array<string>  $parts */
    private static function listed(array $parts): string
    {
        $parts = array_values($parts);
        $last = array_pop($parts);

        return $parts === [] ? (string) $last : implode(', ', $parts)." and {$last}";
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Record\Record;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Time\Due;
use VividLedger\Time\LocalTime;
use VividLedger\Time\OutOfTime;
use VividLedger\Time\WorkingCalendar;

/** The moment so long before or after a date of a record; once, or every year. A date begins at midnight. */
final readonly class ArrivingDate
{
    public function __construct(
        public Field $field,
        public Due $due,
        public bool $yearly,
    ) {
    }

    /**
     * The same of a value of the date.
     *
     * @param  array{WorkingCalendar, \DateTimeZone}  $clock
     */
    public function nearBy(string $value, array $clock, \DateTimeImmutable $at): ?string
    {
        foreach ($this->ahead($value, $clock, $at) as [$moment, $occasion]) {
            if ($moment <= $at) {
                return $occasion;
            }
        }

        return null;
    }

    /**
     * @param  array{WorkingCalendar, \DateTimeZone}  $clock
     * @return list<array{\DateTimeImmutable, string}> moment and occasion of the dates that are still to come; of anniversaries, the next
     *     two
     */
    public function ahead(string $value, array $clock, \DateTimeImmutable $at): array
    {
        [$calendar, $zone] = $clock;
        $now = (int) $at->format('Y');
        $years = $this->yearly ? array_filter([$now, $now + 1], static fn (int $year): bool => $year > (int) substr($value, 0, 4)) : [null];
        $ahead = [];
        foreach ($years as $year) {
            try {
                if ($this->base($value, $year, $zone) > $at) {
                    $ahead[] = [$this->moment($value, $year, $calendar, $zone), $this->occasion($value, $year)];
                }
            } catch (OutOfTime) {
                // Such a date never comes.
            }
        }

        return $ahead;
    }

    /**
     * The moments that a value leads to, those of other years than a span reaches left out.
     *
     * @param  array{WorkingCalendar, \DateTimeZone}  $clock
     * @return list<array{\DateTimeImmutable, string}> moment and occasion
     */
    public function moments(string $value, array $clock, \DateTimeImmutable $from, \DateTimeImmutable $until): array
    {
        $years = [null];
        if ($this->yearly) {
            $reach = intdiv(abs($this->due->amount->seconds()), 365 * 86_400) + 1;
            $years = array_values(array_filter(
                range((int) $from->format('Y') - $reach, (int) $until->format('Y') + $reach),
                static fn (int $year): bool => $year > (int) substr($value, 0, 4),
            ));
        }
        $moments = [];
        foreach ($years as $year) {
            try {
                $moments[] = [$this->moment($value, $year, $clock[0], $clock[1]), $this->occasion($value, $year)];
            } catch (OutOfTime) {
                // Such a date never comes.
            }
        }

        return $moments;
    }

    /**
     * The moment at which a value of the field sets the rule off.
     *
     * @param  string  $value  "2026-11-24", or an instant
     * @param  ?int  $year  of the anniversary; null for the date itself
     *
     * @throws OutOfTime
     */
    public function moment(string $value, ?int $year, WorkingCalendar $calendar, \DateTimeZone $zone): \DateTimeImmutable
    {
        return $this->due->from($this->base($value, $year, $zone), $zone, $calendar);
    }

    /** The instant at which the date itself, or its anniversary, begins. */
    private function base(string $value, ?int $year, \DateTimeZone $zone): \DateTimeImmutable
    {
        $isDay = strlen($value) === 10;
        $local = $isDay ? null : (new \DateTimeImmutable($value))->setTimezone($zone);
        $date = $local?->format('Y-m-d') ?? $value;
        if ($isDay || $year !== null) {
            [$its, $month, $day] = array_map(intval(...), explode('-', $date));
            $its = $year ?? $its;
            // Of 29 February every year has an anniversary.
            $day = $month === 2 && $day === 29 && ! checkdate(2, 29, $its) ? 28 : $day;

            return LocalTime::instant($its, $month, $day, $local?->format('H:i:s') ?? '00:00:00', $zone);
        }

        return new \DateTimeImmutable($value);
    }

    /**
     * The days of the field whose moment lies behind one instant and not behind another.
     *
     * @return list<string> "2026-11-24"; for every year, the anniversaries
     */
    public function daysBetween(\DateTimeImmutable $after, \DateTimeImmutable $until, WorkingCalendar $calendar, \DateTimeZone $zone): array
    {
        [$first, $last] = $this->due->bases($after, $until, $zone, $calendar);
        $day = $first->setTimezone($zone)->modify('-1 day');
        $last = $last->setTimezone($zone)->modify('+1 day')->format('Y-m-d');
        $days = [];
        for ($name = $day->format('Y-m-d'); $name <= $last; $name = $day->format('Y-m-d')) {
            $moment = $this->moment($name, null, $calendar, $zone);
            if ($moment > $after && $moment <= $until) {
                $days[] = $name;
            }
            $day = $day->modify('+1 day');
        }

        return $days;
    }

    /** Whether a text names an occurrence of this date, and not another way in which the rule starts. */
    public function isOccasion(string $occasion): bool
    {
        return str_starts_with($occasion, "date:{$this->field->name}:");
    }

    /** Whether an occasion is still that of the record's date, which has not moved since. */
    public function isOf(Record $record, string $occasion): bool
    {
        $value = $record->value($this->field->name);

        return is_string($value)
            && ($occasion === $this->occasion($value, null) || str_starts_with($occasion, $this->occasion($value, null).':'));
    }

    /** Names the occurrence among all of the record: it can set the rule off once. */
    public function occasion(string $value, ?int $year): string
    {
        return "date:{$this->field->name}:{$value}".($year === null ? '' : ":{$year}");
    }

    public function isDay(): bool
    {
        return $this->field->type === FieldType::Date;
    }
}

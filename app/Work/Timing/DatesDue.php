<?php

declare(strict_types=1);

namespace App\Work\Timing;

use App\Models\Columns;
use App\Models\Records\StoredRecord;
use App\Store\Sql\DayOfYear;
use App\Store\Types\SchemaStore;
use Closure;
use Illuminate\Database\Query\Builder;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\ArrivingDate;
use VividLedger\Rule\Trigger\WaitsForDate;
use VividLedger\Schema\RecordType;
use VividLedger\Time\OutOfTime;
use VividLedger\Time\WorkingCalendar;

/** Records whose date arrives: looked for by the values that can have arrived, through the index of the date. */
final readonly class DatesDue implements Finds
{
    /** Days that may lie between a date and the one whose moment is the next, where moments move to working days. */
    /** Days ahead that are looked at for an anniversary, one after the other. */
    private const AHEAD_DAYS = [10, 60, 370];

    private const MOST_ROLLED = 40;

    private const CHUNK = 2000;

    public function __construct(private SchemaStore $schemas, private Clocks $clocks)
    {
    }

    public function between(Rule $rule, \DateTimeImmutable $after, \DateTimeImmutable $until, int $cursor, int $chunk): array
    {
        $date = self::date($rule);
        $type = $this->schemas->schema()->types[$rule->on];
        [$all, $whose] = $this->clocksOf($date);
        $candidates = $this->candidates(StoredRecord::rowsOf($type), $date, $after, $until, $all);
        if ($candidates === null) {
            return [];
        }
        $found = [];
        do {
            $rows = $this->rows($type, $date, (clone $candidates)->where('id', '>', $cursor)->orderBy('id')->limit($chunk));
            foreach ($rows as [$cursor, $value, $owner]) {
                foreach ($date->moments($value, $whose[$owner] ?? $all[0], $after, $until) as [$moment, $occasion]) {
                    if ($moment > $after && $moment <= $until) {
                        $found[$cursor] = [$cursor, $occasion];
                    }
                }
            }
        } while (count($rows) === $chunk && count($found) < $chunk);

        return $found;
    }

    public function next(Rule $rule, \DateTimeImmutable $after): ?\DateTimeImmutable
    {
        $date = self::date($rule);
        $next = null;
        foreach ($this->clocksOf($date)[0] as $clock) {
            $moment = $date->yearly ? $this->nextAnniversary(
                $rule,
                $date,
                $clock,
                $after,
            ) : $this->nextDate($rule, $date, $clock, $after);
            $next = $moment === null || ($next !== null && $next <= $moment) ? $next : $moment;
        }

        return $next;
    }

    public function existing(Rule $rule, \DateTimeImmutable $now, Closure $matching): array
    {
        $date = self::date($rule);
        $type = $this->schemas->schema()->types[$rule->on];
        [$all, $whose] = $this->clocksOf($date);
        $field = $date->field->name;
        $ahead = $date->isDay() ? $now->modify('-1 day')->format('Y-m-d') : Columns::moment($now);
        $matching = $matching();
        $matching->whereNotNull("t.{$field}")->select(['t.id', "t.{$field} as value", "t.{$type->owner} as owner"]);
        if (! $date->yearly) {
            $matching->where("t.{$field}", '>=', $ahead);
        }
        $near = [];
        foreach ($matching->lazyById(self::CHUNK, 't.id', 'id') as $row) {
            $value = $date->isDay() ? (string) $row->value : (string) Columns::iso($row->value);
            $occasion = $date->nearBy($value, $whose[(int) $row->owner] ?? $all[0], $now);
            if ($occasion !== null) {
                $near[] = [(int) $row->id, $occasion];
            }
        }

        return $near;
    }

    /**
     * @param  non-empty-list<array{WorkingCalendar, \DateTimeZone}>  $clocks
     * @return ?Builder the records of which nothing else can be due; null when nothing can
     */
    private function candidates(
        Builder $records, ArrivingDate $date, \DateTimeImmutable $after, \DateTimeImmutable $until, array $clocks,
    ): ?Builder {
        $field = $date->field->name;
        if (! $date->isDay()) {
            $ends = array_map(static fn (array $clock): array => $date->due->bases($after, $until, $clock[1], $clock[0]), $clocks);
            $span = [Columns::moment(min(array_column($ends, 0))), Columns::moment(max(array_column($ends, 1)))];

            return $date->yearly ? $records->whereNotNull($field) : $records->whereBetween($field, $span);
        }
        $days = [];
        foreach ($clocks as [$calendar, $zone]) {
            array_push($days, ...$date->daysBetween($after, $until, $calendar, $zone));
        }
        if ($date->yearly) {
            $days = array_map(static fn (string $day): string => substr($day, 5), $days);
            // Those of 29 February have their anniversary on the 28th.
            $days = in_array('02-28', $days, true) ? [...$days, '02-29'] : $days;
        }
        $days = array_values(array_unique($days));

        return $days === [] ? null : $records->whereIn($date->yearly ? DayOfYear::of($field) : $field, $days);
    }

    /** @param  array{WorkingCalendar, \DateTimeZone}  $clock */
    private function nextDate(Rule $rule, ArrivingDate $date, array $clock, \DateTimeImmutable $after): ?\DateTimeImmutable
    {
        [$calendar, $zone] = $clock;
        $from = $date->due->bases($after, $after, $zone, $calendar)[0]->modify('-3 days');
        for ($tries = 0; $tries < self::MOST_ROLLED; $tries++) {
            $value = StoredRecord::rowsOf($rule->on)
                ->where($date->field->name, '>', $date->isDay() ? $from->setTimezone($zone)->format('Y-m-d') : Columns::moment($from))
                ->min($date->field->name);
            if ($value === null) {
                return null;
            }
            $value = $date->isDay() ? (string) $value : (string) Columns::iso((string) $value);
            try {
                $moment = $date->moment($value, null, $calendar, $zone);
            } catch (OutOfTime) {
                return null;
            }
            if ($moment > $after) {
                return $moment;
            }
            $from = strlen($value) === 10 ? new \DateTimeImmutable("{$value} 12:00", $zone) : new \DateTimeImmutable($value);
        }

        // So many dates at one moment: then it is looked at right away.
        return $after->modify('+1 second');
    }

    /**
     * The next days are looked at first, and the whole year only where nothing comes of them; of each day the oldest date stands for all.
     *
     * @param  array{WorkingCalendar, \DateTimeZone}  $clock
     */
    private function nextAnniversary(Rule $rule, ArrivingDate $date, array $clock, \DateTimeImmutable $after): ?\DateTimeImmutable
    {
        $field = $date->field->name;
        $alike = $date->isDay() ? DayOfYear::of($field) : DayOfYear::withTime($field);
        foreach (self::AHEAD_DAYS as $ahead) {
            $until = $after->modify("+{$ahead} days");
            $days = $this->anniversaries($date, $after, $until, $clock);
            $kept = StoredRecord::rowsOf($rule->on)->whereNotNull($field)->groupBy($alike)
                ->when($days !== null, static fn (Builder $rows): Builder => $rows->whereIn(DayOfYear::of($field), $days))
                ->selectRaw("MIN(`{$field}`) AS kept")->pluck('kept');
            $next = null;
            foreach ($kept as $one) {
                $value = $date->isDay() ? (string) $one : (string) Columns::iso($one);
                foreach ($date->moments($value, $clock, $after, $until) as [$moment]) {
                    $next = $moment > $after && $moment <= $until && ($next === null || $moment < $next) ? $moment : $next;
                }
            }
            if ($next !== null) {
                return $next;
            }
        }

        return null;
    }

    /**
     * @param  array{WorkingCalendar, \DateTimeZone}  $clock
     * @return ?list<string> days of the year whose moments may lie in a span, "02-28"; null for all
     */
    private function anniversaries(ArrivingDate $date, \DateTimeImmutable $after, \DateTimeImmutable $until, array $clock): ?array
    {
        [$first, $last] = $date->due->bases($after, $until, $clock[1], $clock[0]);
        // A day more at each end, for what is another day in another zone.
        [$day, $last, $days] = [$first->modify('-2 days'), $last->modify('+2 days'), []];
        for (; $day <= $last; $day = $day->modify('+1 day')) {
            $days[$day->format('m-d')] = true;
            if (count($days) > 360) {
                return null;
            }
        }

        return [...array_keys($days), ...isset($days['02-28']) ? ['02-29'] : []];
    }

    /**
     * @return list<array{int, string, int}> id, value of the date, and owner
     */
    private function rows(RecordType $type, ArrivingDate $date, Builder $records): array
    {
        $owner = $date->due->ownersClock ? ["{$type->owner} as owner"] : [];

        return array_values($records->get(['id', "{$date->field->name} as value", ...$owner])->map(static fn (object $row): array => [
            (int) $row->id, $date->isDay() ? (string) $row->value : (string) Columns::iso($row->value), (int) ($row->owner ?? 0),
        ])->all());
    }

    /** @return array{non-empty-list<array{WorkingCalendar, \DateTimeZone}>, array<int, array{WorkingCalendar, \DateTimeZone}>} */
    private function clocksOf(ArrivingDate $date): array
    {
        [$all, $whose] = $date->due->ownersClock ? $this->clocks->everybodys() : [[$this->clocks->company()], []];

        return [$all === [] ? [$this->clocks->company()] : $all, $whose];
    }

    private static function date(Rule $rule): ArrivingDate
    {
        return $rule->trigger instanceof WaitsForDate ? $rule->trigger->arriving()
            : throw new \LogicException('This rule waits for no date.');
    }
}

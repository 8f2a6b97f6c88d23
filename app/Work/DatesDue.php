<?php

declare(strict_types=1);

namespace App\Work;

use App\Models\Columns;
use App\Models\StoredRecord;
use App\Store\SchemaStore;
use App\Store\Sql\DayOfYear;
use Illuminate\Database\Query\Builder;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\DateArrives;
use VividLedger\Schema\RecordType;
use VividLedger\Time\OutOfTime;
use VividLedger\Time\WorkingCalendar;

/** Records whose date arrives: looked for by the values that can have arrived, through the index of the date. */
final readonly class DatesDue implements Finds
{
    /** Days that may lie between a date and the one whose moment is the next, where moments move to working days. */
    private const MOST_ROLLED = 40;

    private const CHUNK = 2000;

    public function __construct(private SchemaStore $schemas, private Clocks $clocks)
    {
    }

    public function between(Rule $rule, \DateTimeImmutable $after, \DateTimeImmutable $until, int $cursor, int $chunk): array
    {
        $trigger = self::trigger($rule);
        $type = $this->schemas->schema()->types[$rule->on];
        [$all, $whose] = $this->clocksOf($trigger);
        $candidates = $this->candidates(StoredRecord::rowsOf($type), $trigger, $after, $until, $all);
        if ($candidates === null) {
            return [];
        }
        $found = [];
        do {
            $rows = $this->rows($type, $trigger, (clone $candidates)->where('id', '>', $cursor)->orderBy('id')->limit($chunk));
            foreach ($rows as [$cursor, $value, $owner]) {
                foreach ($this->moments($trigger, $value, $whose[$owner] ?? $all[0], $after, $until) as [$moment, $occasion]) {
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
        $trigger = self::trigger($rule);
        $next = null;
        foreach ($this->clocksOf($trigger)[0] as $clock) {
            $moment = $trigger->yearly ? $this->nextAnniversary(
                $rule,
                $trigger,
                $clock,
                $after,
            ) : $this->nextDate($rule, $trigger, $clock, $after);
            $next = $moment === null || ($next !== null && $next <= $moment) ? $next : $moment;
        }

        return $next;
    }

    /**
     * Records that match a rule as it is put in force: those whose moment has passed while the date itself is still ahead.
     *
     * @param  Builder  $matching  the records that meet its conditions, as "t"
     * @return list<array{int, string}> record and occasion, in order
     */
    public function near(Rule $rule, \DateTimeImmutable $now, Builder $matching): array
    {
        $trigger = self::trigger($rule);
        $type = $this->schemas->schema()->types[$rule->on];
        [$all, $whose] = $this->clocksOf($trigger);
        $field = $trigger->field->name;
        $ahead = $trigger->isDay() ? $now->modify('-1 day')->format('Y-m-d') : Columns::moment($now);
        $matching->whereNotNull("t.{$field}")->select(['t.id', "t.{$field} as value", "t.{$type->owner} as owner"]);
        if (! $trigger->yearly) {
            $matching->where("t.{$field}", '>=', $ahead);
        }
        $near = [];
        foreach ($matching->lazyById(self::CHUNK, 't.id', 'id') as $row) {
            $value = $trigger->isDay() ? (string) $row->value : (string) Columns::iso($row->value);
            $occasion = $trigger->nearBy($value, $whose[(int) $row->owner] ?? $all[0], $now);
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
        Builder $records, DateArrives $trigger, \DateTimeImmutable $after, \DateTimeImmutable $until, array $clocks,
    ): ?Builder {
        $field = $trigger->field->name;
        if (! $trigger->isDay()) {
            $ends = array_map(static fn (array $clock): array => $trigger->due->bases($after, $until, $clock[1], $clock[0]), $clocks);
            $span = [Columns::moment(min(array_column($ends, 0))), Columns::moment(max(array_column($ends, 1)))];

            return $trigger->yearly ? $records->whereNotNull($field) : $records->whereBetween($field, $span);
        }
        $days = [];
        foreach ($clocks as [$calendar, $zone]) {
            array_push($days, ...$trigger->daysBetween($after, $until, $calendar, $zone));
        }
        if ($trigger->yearly) {
            $days = array_map(static fn (string $day): string => substr($day, 5), $days);
            // Those of 29 February have their anniversary on the 28th.
            $days = in_array('02-28', $days, true) ? [...$days, '02-29'] : $days;
        }
        $days = array_values(array_unique($days));

        return $days === [] ? null : $records->whereIn($trigger->yearly ? DayOfYear::of($field) : $field, $days);
    }

    /** @param  array{WorkingCalendar, \DateTimeZone}  $clock */
    private function nextDate(Rule $rule, DateArrives $trigger, array $clock, \DateTimeImmutable $after): ?\DateTimeImmutable
    {
        [$calendar, $zone] = $clock;
        $from = $trigger->due->bases($after, $after, $zone, $calendar)[0]->modify('-3 days');
        for ($tries = 0; $tries < self::MOST_ROLLED; $tries++) {
            $value = StoredRecord::rowsOf($rule->on)
                ->where($trigger->field->name, '>', $trigger->isDay() ? $from->setTimezone($zone)->format('Y-m-d') : Columns::moment($from))
                ->min($trigger->field->name);
            if ($value === null) {
                return null;
            }
            $value = $trigger->isDay() ? (string) $value : (string) Columns::iso((string) $value);
            try {
                $moment = $trigger->moment($value, null, $calendar, $zone);
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

    /** @param  array{WorkingCalendar, \DateTimeZone}  $clock */
    private function nextAnniversary(Rule $rule, DateArrives $trigger, array $clock, \DateTimeImmutable $after): ?\DateTimeImmutable
    {
        $field = $trigger->field->name;
        $next = null;
        foreach (StoredRecord::rowsOf($rule->on)->whereNotNull($field)->distinct()->pluck($field) as $kept) {
            $value = $trigger->isDay() ? (string) $kept : (string) Columns::iso($kept);
            foreach ($this->moments($trigger, $value, $clock, $after, $after->modify('+1 year')) as [$moment]) {
                $next = $moment > $after && ($next === null || $moment < $next) ? $moment : $next;
            }
        }

        return $next;
    }

    /**
     * @param  array{WorkingCalendar, \DateTimeZone}  $clock
     * @return list<array{\DateTimeImmutable, string}> moment and occasion of a date, or of its anniversaries around a time
     */
    private function moments(DateArrives $trigger, string $value, array $clock, \DateTimeImmutable $after, \DateTimeImmutable $until): array
    {
        $years = [null];
        if ($trigger->yearly) {
            // The moment lies at most ten years from the anniversary.
            $reach = intdiv(abs($trigger->due->amount->seconds()), 365 * 86_400) + 1;
            $years = array_filter(
                range((int) $after->format('Y') - $reach, (int) $until->format('Y') + $reach),
                static fn (int $year): bool => $year > (int) substr($value, 0, 4),
            );
        }
        $moments = [];
        foreach ($years as $year) {
            try {
                $moments[] = [$trigger->moment($value, $year, $clock[0], $clock[1]), $trigger->occasion($value, $year)];
            } catch (OutOfTime) {
                // Such a date never comes.
            }
        }

        return $moments;
    }

    /**
     * @return list<array{int, string, int}> id, value of the date, and owner
     */
    private function rows(RecordType $type, DateArrives $trigger, Builder $records): array
    {
        $owner = $trigger->due->ownersClock ? ["{$type->owner} as owner"] : [];

        return array_values($records->get(['id', "{$trigger->field->name} as value", ...$owner])->map(static fn (object $row): array => [
            (int) $row->id, $trigger->isDay() ? (string) $row->value : (string) Columns::iso($row->value), (int) ($row->owner ?? 0),
        ])->all());
    }

    /** @return array{non-empty-list<array{WorkingCalendar, \DateTimeZone}>, array<int, array{WorkingCalendar, \DateTimeZone}>} */
    private function clocksOf(DateArrives $trigger): array
    {
        [$all, $whose] = $trigger->due->ownersClock ? $this->clocks->everybodys() : [[$this->clocks->company()], []];

        return [$all === [] ? [$this->clocks->company()] : $all, $whose];
    }

    private static function trigger(Rule $rule): DateArrives
    {
        return $rule->trigger instanceof DateArrives ? $rule->trigger : throw new \LogicException('This rule waits for no date.');
    }
}

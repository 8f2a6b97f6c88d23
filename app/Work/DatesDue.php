<?php

declare(strict_types=1);

namespace App\Work;

use App\Store\Columns;
use App\Store\SchemaStore;
use App\Store\TypeTable;
use Illuminate\Database\Connection;
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

    public function __construct(private Connection $db, private SchemaStore $schemas, private Clocks $clocks)
    {
    }

    public function between(Rule $rule, \DateTimeImmutable $after, \DateTimeImmutable $until, int $cursor, int $chunk): array
    {
        $trigger = self::trigger($rule);
        $type = $this->schemas->schema()->types[$rule->on];
        [$all, $whose] = $this->clocksOf($trigger);
        [$where, $bindings] = $this->candidates($trigger, $after, $until, $all);
        if ($where === '') {
            return [];
        }
        $found = [];
        do {
            $rows = $this->rows($type, $trigger, "{$where} AND id > ? ORDER BY id LIMIT {$chunk}", [...$bindings, $cursor]);
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
     * @param  string  $and  further conditions in SQL, over the table as "t", with the joins they need
     * @param  list<string|int>  $bindings
     * @return list<array{int, string}> record and occasion, in order
     */
    public function near(Rule $rule, \DateTimeImmutable $now, string $joins, string $and, array $bindings): array
    {
        $trigger = self::trigger($rule);
        $type = $this->schemas->schema()->types[$rule->on];
        [$all, $whose] = $this->clocksOf($trigger);
        $field = $trigger->field->name;
        $owner = "t.`{$type->owner}`";
        $near = [];
        $cursor = 0;
        do {
            $rows = $this->db->select(
                'SELECT t.id, t.`'.$field."` AS value, {$owner} AS owner FROM `".TypeTable::name($type->name)."` t{$joins} WHERE t.`{$field}` IS NOT NULL".($trigger->yearly ? '' : " AND t.`{$field}` >= ?")." AND {$and} AND t.id > ? ORDER BY t.id LIMIT 2000",
                [
                    ...($trigger->yearly ? [] : [$trigger->isDay() ? $now->modify('-1 day')->format('Y-m-d') : Columns::moment($now)]),
                    ...$bindings, $cursor,
                ],
            );
            foreach ($rows as $row) {
                $cursor = (int) $row->id;
                $occasion = $trigger->nearBy(
                    $trigger->isDay() ? (string) $row->value : (string) Columns::iso($row->value),
                    $whose[(int) $row->owner] ?? $all[0],
                    $now,
                );
                if ($occasion !== null) {
                    $near[] = [$cursor, $occasion];
                }
            }
        } while (count($rows) === 2000);

        return $near;
    }

    /**
     * @param  list<array{WorkingCalendar, \DateTimeZone}>  $clocks
     * @return array{string, list<string>} a condition that nothing else can meet, and its values; empty when nothing can
     */
    private function candidates(DateArrives $trigger, \DateTimeImmutable $after, \DateTimeImmutable $until, array $clocks): array
    {
        $field = $trigger->field->name;
        if (! $trigger->isDay()) {
            $ends = array_map(static fn (array $clock): array => $trigger->due->bases($after, $until, $clock[1], $clock[0]), $clocks);

            return $trigger->yearly ? ["`{$field}` IS NOT NULL", []]
                : [
                    "`{$field}` BETWEEN ? AND ?",
                    [Columns::moment(min(array_column($ends, 0))), Columns::moment(max(array_column($ends, 1)))],
                ];
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
        $column = $trigger->yearly ? "DATE_FORMAT(`{$field}`, '%m-%d')" : "`{$field}`";

        return $days === [] ? ['', []] : ["{$column} IN (".implode(', ', array_fill(0, count($days), '?')).')', $days];
    }

    /** @param  array{WorkingCalendar, \DateTimeZone}  $clock */
    private function nextDate(Rule $rule, DateArrives $trigger, array $clock, \DateTimeImmutable $after): ?\DateTimeImmutable
    {
        [$calendar, $zone] = $clock;
        $from = $trigger->due->bases($after, $after, $zone, $calendar)[0]->modify('-3 days');
        for ($tries = 0; $tries < self::MOST_ROLLED; $tries++) {
            $value = $this->db->scalar(
                'SELECT MIN(`'.$trigger->field->name.'`) FROM `'.TypeTable::name($rule->on).'` WHERE `'.$trigger->field->name.'` > ?',
                [$trigger->isDay() ? $from->setTimezone($zone)->format('Y-m-d') : Columns::moment($from)],
            );
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
        foreach ($this->db->select("SELECT DISTINCT `{$field}` AS value FROM `".TypeTable::name($rule->on)."` WHERE `{$field}` IS NOT NULL") as $row) {
            foreach ($this->moments($trigger, $trigger->isDay() ? (string) $row->value : (string) Columns::iso($row->value), $clock, $after, $after->modify('+1 year')) as [$moment]) {
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
     * @param  list<string|int>  $bindings
     * @return list<array{int, string, int}> id, value of the date, and owner
     */
    private function rows(RecordType $type, DateArrives $trigger, string $where, array $bindings): array
    {
        $owner = $trigger->due->ownersClock ? "`{$type->owner}`" : 'NULL';
        $rows = $this->db->select(
            "SELECT id, `{$trigger->field->name}` AS value, {$owner} AS owner FROM `".TypeTable::name($type->name)."` WHERE {$where}",
            $bindings,
        );

        return array_map(
            static fn (object $row): array => [
                (int) $row->id, $trigger->isDay() ? (string) $row->value : (string) Columns::iso($row->value), (int) $row->owner,
            ],
            array_values($rows),
        );
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

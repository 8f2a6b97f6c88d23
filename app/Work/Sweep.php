<?php

declare(strict_types=1);

namespace App\Work;

use App\Store\Actor;
use App\Store\Columns;
use App\Store\Company;
use App\Store\Outcome;
use App\Store\PeopleStore;
use App\Store\RememberedRuleBook;
use App\Store\SaveRecord;
use App\Store\SchemaStore;
use App\Store\StoredFacts;
use App\Store\StoredRuleBook;
use App\Store\TypeTable;
use Illuminate\Database\Connection;
use VividLedger\Engine\Decision;
use VividLedger\Engine\Engine;
use VividLedger\Engine\FixedClock;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Change;
use VividLedger\Record\Event;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\ComesRound;
use VividLedger\Rule\Trigger\DateArrives;
use VividLedger\Rule\Trigger\FallsQuiet;
use VividLedger\Rule\Trigger\Swept;
use VividLedger\Schema\RecordType;

/**
 * Looks for what time sets off: from where the last sweep of a rule ended to now. One worker at a time sweeps a rule; how far
 * it came commits with what it started, and the occasion of each start is a guard key, so nothing is missed or started twice.
 */
final readonly class Sweep
{
    private const CHUNK = 500;

    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private StoredRuleBook $rules,
        private Engine $engine,
        private SaveRecord $save,
        private HouseClock $clock,
        private Company $company,
        private QuietRecords $quiet,
        private Rounds $rounds,
    ) {
    }

    /** @return int how many records rules were started on */
    public function work(): int
    {
        $started = 0;
        $now = $this->clock->now();
        foreach ($this->db->select("SELECT s.rule_id FROM sweeps s JOIN rules r ON r.id = s.rule_id WHERE r.status = 'in_force' AND s.swept_until < ? ORDER BY s.rule_id", [Columns::moment($now)]) as $row) {
            do {
                [$count, $more] = $this->db->transaction(fn (): array => $this->chunk((int) $row->rule_id, $now), 5);
                $started += $count;
            } while ($more);
        }

        return $started;
    }

    /** @return array{int, bool} how many records were started on, and whether there may be more */
    private function chunk(int $ruleId, \DateTimeImmutable $now): array
    {
        $sweep = $this->db->selectOne("SELECT s.*, r.page, r.either_or FROM sweeps s JOIN rules r ON r.id = s.rule_id WHERE s.rule_id = ? AND r.status = 'in_force' FOR UPDATE SKIP LOCKED", [$ruleId]);
        if ($sweep === null) {
            return [0, false];
        }
        $rule = $this->rules->page($ruleId, (int) $sweep->page, $sweep->either_or);
        $after = new \DateTimeImmutable("{$sweep->swept_until}Z");
        $until = $sweep->sweeping_to === null ? $now : new \DateTimeImmutable("{$sweep->sweeping_to}Z");
        if ($until <= $after) {
            return [0, false];
        }
        $cursor = (int) $sweep->at_id;
        $found = $rule === null ? [] : match (true) {
            $rule->trigger instanceof DateArrives => $this->dates($rule, $rule->trigger, $after, $until, $cursor),
            $rule->trigger instanceof FallsQuiet => $this->quiet->find($this->typeOf($rule), $rule->trigger, $after, $until, $cursor, self::CHUNK),
            $rule->trigger instanceof ComesRound => $this->rounds->come($rule, $rule->trigger, $after, $until),
            default => [],
        };
        $started = $rule === null || ! $rule->trigger instanceof Swept || $found === [] ? 0 : $this->start($rule, $rule->trigger, $found, $now);
        $more = count($found) >= self::CHUNK;
        $this->db->update('UPDATE sweeps SET swept_until = ?, sweeping_to = ?, at_id = ? WHERE rule_id = ?', $more
            ? [$sweep->swept_until, Columns::moment($until), max(array_keys($found)), $ruleId] : [Columns::moment($until), null, 0, $ruleId]);

        return [$started, $more];
    }

    /**
     * Records whose date sets a rule off between two instants.
     *
     * @return array<int, array{int, string}> record and occasion, by the record's id; a chunk of them, in order
     */
    private function dates(Rule $rule, DateArrives $trigger, \DateTimeImmutable $after, \DateTimeImmutable $until, int $cursor): array
    {
        $type = $this->typeOf($rule);
        $table = TypeTable::name($type->name);
        $field = $trigger->field->name;
        $clocks = $this->clocks($trigger->due->ownersClock);
        $owner = $trigger->due->ownersClock ? "`{$type->owner}`" : 'NULL';
        if ($trigger->isDay()) {
            $days = [];
            foreach ($clocks['all'] as [$calendar, $zone]) {
                array_push($days, ...$trigger->daysBetween($after, $until, $calendar, $zone));
            }
            $days = array_values(array_unique($days));
            if ($days === []) {
                return [];
            }
            if ($trigger->yearly) {
                $of = array_values(array_unique(array_map(static fn (string $day): string => substr($day, 5), $days)));
                // Those of 29 February have their anniversary on the 28th.
                $of = in_array('02-28', $of, true) ? [...$of, '02-29'] : $of;
                [$where, $bindings] = ["DATE_FORMAT(`{$field}`, '%m-%d') IN (".self::places($of).')', $of];
            } else {
                [$where, $bindings] = ["`{$field}` IN (".self::places($days).')', $days];
            }
        } else {
            $ends = array_map(static fn (array $clock): array => $trigger->due->bases($after, $until, $clock[1], $clock[0]), $clocks['all']);
            [$from, $to] = [min(array_column($ends, 0)), max(array_column($ends, 1))];
            [$where, $bindings] = $trigger->yearly ? ["`{$field}` IS NOT NULL", []] : ["`{$field}` BETWEEN ? AND ?", [Columns::moment($from), Columns::moment($to)]];
        }
        $found = [];
        do {
            $rows = $this->db->select("SELECT id, `{$field}` AS value, {$owner} AS owner FROM `{$table}` WHERE {$where} AND id > ? ORDER BY id LIMIT ".self::CHUNK, [...$bindings, $cursor]);
            foreach ($rows as $row) {
                $cursor = (int) $row->id;
                $value = $trigger->isDay() ? (string) $row->value : (string) Columns::iso($row->value);
                [$calendar, $zone] = $clocks[(int) $row->owner] ?? $clocks['all'][0];
                foreach ($this->years($trigger, $value, $after, $until) as $year) {
                    $moment = $trigger->moment($value, $year, $calendar, $zone);
                    if ($moment > $after && $moment <= $until) {
                        $found[$cursor] = [$cursor, $trigger->occasion($value, $year)];
                    }
                }
            }
        } while (count($rows) === self::CHUNK && count($found) < self::CHUNK);

        return $found;
    }

    /** @return list<?int> the years whose anniversary may be meant; null for the date itself */
    private function years(DateArrives $trigger, string $value, \DateTimeImmutable $after, \DateTimeImmutable $until): array
    {
        if (! $trigger->yearly) {
            return [null];
        }
        // The moment lies at most ten years from the anniversary.
        $reach = intdiv(abs($trigger->due->amount->seconds()), 365 * 86_400) + 1;

        return array_values(array_filter(range((int) $after->format('Y') - $reach, (int) $until->format('Y') + $reach), static fn (int $year): bool => $year > (int) substr($value, 0, 4)));
    }

    /**
     * @param  array<int, array{int, string}>  $found  record and occasion
     */
    private function start(Rule $rule, Swept $trigger, array $found, \DateTimeImmutable $now): int
    {
        $type = $this->typeOf($rule);
        $occasions = array_column($found, 1, 0);
        $ids = array_keys($occasions);
        $settlement = $this->save->settlement($now, static fn (StoredFacts $facts) => $facts->rememberGuards($rule->id, $type->name, $ids));
        $book = new RememberedRuleBook($this->rules, $rule);
        $started = 0;
        foreach ($this->db->select('SELECT * FROM `'.TypeTable::name($type->name).'` WHERE id IN ('.implode(', ', $ids).') ORDER BY id FOR UPDATE') as $row) {
            $record = Columns::record($type, $row);
            $change = Change::event($record, new Event($trigger::event(), $occasions[$record->id], $trigger->wanted(), $rule->id), null, $now, CauseKind::Rule);
            $decision = $settlement->decided($type->name, fn (StoredFacts $facts): Decision => $this->engine->decide($change, $book, $facts, new FixedClock($now)));
            if ($decision->steps === [] || $decision->refusal !== null) {
                continue;
            }
            $started++;
            $settlement->add([$record, $decision->after], new Outcome($change, $decision, new Actor(null, CauseKind::Rule), $trigger::event()->value));
        }
        $settlement->flush();

        return $started;
    }

    /** @return array<array-key, mixed> calendar and zone by owner, and all that differ under "all" */
    private function clocks(bool $owners): array
    {
        $people = new PeopleStore($this->db, $this->schemas);
        $company = [$people->calendar(null), $this->company->zone()];
        if (! $owners) {
            return ['all' => [$company]];
        }
        $clocks = ['all' => [spl_object_id($company[0]) => $company]];
        foreach ($people->everybody() as $person) {
            $calendar = $people->calendar($person);
            $clocks[$person->id] = $clocks['all'][spl_object_id($calendar)] ??= [$calendar, $calendar->zone];
        }
        $clocks['all'] = array_values($clocks['all']);

        return $clocks;
    }

    private function typeOf(Rule $rule): RecordType
    {
        return $this->schemas->schema()->types[$rule->on];
    }

    /** @param  array<mixed>  $values */
    private static function places(array $values): string
    {
        return implode(', ', array_fill(0, count($values), '?'));
    }
}

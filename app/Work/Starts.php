<?php

declare(strict_types=1);

namespace App\Work;

use App\Store\Batch;
use App\Store\Columns;
use App\Store\Company;
use App\Store\Existing;
use App\Store\GuardStore;
use App\Store\Refused;
use App\Store\SchemaStore;
use App\Store\SqlQueryWriter;
use App\Store\TypeTable;
use Illuminate\Database\Connection;
use VividLedger\Engine\GuardState;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\ComesRound;
use VividLedger\Rule\Trigger\DateArrives;
use VividLedger\Rule\Trigger\FallsQuiet;

/**
 * The records that match a rule when it is put in force: counted as done, or started, spread over hours. Of a rule on a date those
 * match whose moment has passed while the date itself is still ahead, of one on quiet those that are quiet already; the rest wait
 * for their time. Leaving them takes no work at all.
 */
final readonly class Starts
{
    private const CHUNK = 500;

    public const MOST_HOURS = 720;

    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private Company $company,
        private HouseClock $clock,
        private DatesDue $dates,
        private QuietRecords $quiet,
    ) {
    }

    /**
     * @param  int  $entry  of putting it in force
     * @return int how many records it was done for
     */
    public function of(Rule $rule, Existing $existing, int $hours, int $entry): int
    {
        if ($hours < 0 || $hours > self::MOST_HOURS) {
            throw new Refused(
                'invalid_values',
                'Spread the start over 0 to '.self::MOST_HOURS.' hours.',
                422,
                [['at' => '/hours', 'code' => 'out_of_range', 'message' => 'Spread the start over 0 to '.self::MOST_HOURS.' hours.']],
            );
        }
        $found = $existing === Existing::Leave ? [] : $this->found($rule);

        return match ($existing) {
            Existing::Leave => 0,
            Existing::Start => $found === null ? $this->startAll($rule, $hours, $entry) : $this->start($rule, $found, $hours, $entry),
            Existing::Count => $this->count($rule, $found, $entry),
        };
    }

    /** How many records would be started or counted; null when that is all that meet the conditions. */
    public function number(Rule $rule): ?int
    {
        $found = $this->found($rule);

        return $found === null ? null : count($found);
    }

    /** @return ?list<array{int, string}> record and occasion; null for every record that meets the conditions */
    private function found(Rule $rule): ?array
    {
        $trigger = $rule->trigger;
        $writer = new SqlQueryWriter($this->clock->now(), $this->company->zone());
        $where = $rule->condition->query($writer);
        if ($trigger instanceof DateArrives) {
            return $this->dates->near($rule, $this->clock->now(), $writer->joins(), $where->text, $where->bindings);
        }
        if ($trigger instanceof ComesRound && $trigger->per !== null) {
            // A list is made when its time comes, and nothing can be made of it for one record.
            return [];
        }
        if (! $trigger instanceof FallsQuiet) {
            return null;
        }
        $quiet = [];
        $cursor = 0;
        do {
            $chunk = $this->quiet->between(
                $rule,
                new \DateTimeImmutable('1000-01-02T00:00:00Z'),
                $this->clock->now(),
                $cursor,
                self::CHUNK,
            );
            $occasions = array_column($chunk, 1, 0);
            $cursor = $chunk === [] ? $cursor : max(array_keys($chunk));
            foreach ($occasions === [] ? [] : $this->db->select('SELECT t.id FROM `'.TypeTable::name($rule->on)."` t{$writer->joins()} WHERE {$where->text} AND t.id IN (".implode(', ', array_keys($occasions)).') ORDER BY t.id', $where->bindings) as $row) {
                $quiet[] = [(int) $row->id, $occasions[(int) $row->id]];
            }
        } while (count($chunk) >= self::CHUNK);

        return $quiet;
    }

    private function startAll(Rule $rule, int $hours, int $entry): int
    {
        $writer = new SqlQueryWriter($this->clock->now(), $this->company->zone());
        $where = $rule->condition->query($writer);

        return $this->db->affectingStatement(
            "INSERT INTO scheduled_lines (kind, due_at, record_type, record_id, entry_id, rule_id, page, said, occasion)
            SELECT 'start', DATE_ADD(?, INTERVAL FLOOR((ROW_NUMBER() OVER (ORDER BY t.id) - 1) * ? / COUNT(*) OVER ()) SECOND),
                ?, t.id, ?, ?, ?, ?, ?
            FROM `".TypeTable::name($rule->on)."` t{$writer->joins()} WHERE {$where->text}",
            [
                Columns::moment($this->clock->now()), $hours * 3600, $rule->on, $entry, $rule->id, $rule->page,
                mb_substr($rule->name, 0, 200), "start:{$rule->page}", ...$where->bindings,
            ],
        );
    }

    /** @param  list<array{int, string}>  $found */
    private function start(Rule $rule, array $found, int $hours, int $entry): int
    {
        $now = $this->clock->now();
        $of = count($found);
        Batch::insert($this->db, 'scheduled_lines', array_map(static fn (array $one, int $index): array => [
            'kind' => 'start', 'due_at' => Columns::moment($now->modify(
                '+'.intdiv($index * $hours * 3600, max(1, $of)).' seconds',
            )), 'record_type' => $rule->on, 'record_id' => $one[0],
            'entry_id' => $entry, 'rule_id' => $rule->id, 'page' => $rule->page, 'said' => mb_substr($rule->name, 0, 200), 'occasion' => $one[1],
        ], $found, array_keys($found)));

        return $of;
    }

    /** @param  ?list<array{int, string}>  $found */
    private function count(Rule $rule, ?array $found, int $entry): int
    {
        $type = $this->schemas->schema()->types[$rule->on];
        $writer = new SqlQueryWriter($this->clock->now(), $this->company->zone());
        $where = $rule->condition->query($writer);
        $occasions = $found === null ? null : array_column($found, 1, 0);
        $counted = 0;
        $after = 0;
        $at = Columns::moment($this->clock->now());
        do {
            $rows = $this->db->select(
                'SELECT t.* FROM `'.TypeTable::name($rule->on)."` t{$writer->joins()} WHERE {$where->text} AND t.id > ? ORDER BY t.id LIMIT ".self::CHUNK,
                [...$where->bindings, $after],
            );
            $after = $rows === [] ? $after : (int) $rows[count($rows) - 1]->id;
            $rest = $occasions === null ? $rows : array_values(array_filter(
                $rows,
                static fn (object $row): bool => isset($occasions[(int) $row->id]),
            ));
            $ids = array_map(static fn (object $row): int => (int) $row->id, $rest);
            [$states, $used] = $ids === [] ? [[], []] : GuardStore::states($this->db, $rule->id, $rule->on, $ids);
            $keys = [];
            foreach ($rest as $row) {
                $id = (int) $row->id;
                $state = $states[$id] ?? new GuardState;
                $key = $rule->guard->key(Columns::record($type, $row), $occasions[$id] ?? "start:{$rule->page}", $state);
                if (! isset($used[$id]["{$state->epoch}:{$key}"])) {
                    $keys[] = [
                        'rule_id' => $rule->id, 'record_type' => $rule->on, 'record_id' => $id, 'epoch' => $state->epoch,
                        'guard_key' => $key, 'entry_id' => $entry, 'at' => $at,
                    ];
                }
            }
            Batch::insert($this->db, 'guard_keys', $keys);
            $counted += count($rest);
        } while (count($rows) === self::CHUNK);

        return $counted;
    }
}

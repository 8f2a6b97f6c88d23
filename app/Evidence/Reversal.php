<?php

declare(strict_types=1);

namespace App\Evidence;

use App\Store\Actor;
use App\Store\Columns;
use App\Store\Company;
use App\Store\LedgerWriter;
use App\Store\LineRows;
use App\Store\Outcome;
use App\Store\PeopleStore;
use App\Store\RecordWriter;
use App\Store\Refused;
use App\Store\SchemaStore;
use App\Store\TypeTable;
use App\Work\HouseClock;
use Illuminate\Database\Connection;
use VividLedger\Engine\Decision;
use VividLedger\Record\Change;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Schema\RecordType;

/**
 * Takes back what the entries of rules did, or what a person's own edit changed: fields return to what they were, open tasks are cancelled, pencilled lines struck
 * out. What was sent stays sent. A field that somebody has changed since is left, unless it is wanted back all the same. No
 * rule answers a reversal: it leads back to a state that rules have answered before.
 */
final readonly class Reversal
{
    /** Reversed together; more are reversed in several steps. */
    public const MOST = 50;

    private const MOST_LISTED = 5000;

    /** Entries of rules that have something to take back. */
    private const OF_RULES = "('fired', 'line')";

    /** The same, and what people and scripts wrote themselves. */
    private const REVERSIBLE = "(e.kind IN ('fired', 'line') OR e.kind = 'changed' AND e.via IN ('person', 'api'))";

    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private RecordWriter $records,
        private LedgerWriter $ledger,
        private HouseClock $clock,
        private Company $company,
    ) {
    }

    /** @return list<int> numbers of the entries of a rule in a span that can be reversed, the newest first */
    public function entriesOf(int $rule, \DateTimeImmutable $from, \DateTimeImmutable $until): array
    {
        return array_map(static fn (object $row): int => (int) $row->id, $this->db->select(
            'SELECT e.id FROM entries e WHERE e.rule_id = ? AND e.at >= ? AND e.at <= ? AND e.kind IN '.self::OF_RULES.' AND NOT EXISTS (SELECT 1 FROM reversals r WHERE r.entry_id = e.id) ORDER BY e.id DESC LIMIT '.self::MOST_LISTED,
            [$rule, Columns::moment($from), Columns::moment($until)],
        ));
    }

    /**
     * What a reversal would come to. Entries that were reversed already are left out.
     *
     * @param  list<int>  $entries
     * @return array{entries: list<int>, fields: int, tasks: int, lines: int, sent: int, conflicts: list<array{entry: int, type: string, record: int, number: string, label: string, was: string, set: string, is: string}>}
     */
    public function preview(array $entries): array
    {
        $display = $this->display();
        $taken = $this->reversible($entries);
        $written = $this->written($taken);
        $sum = ['entries' => $taken, 'fields' => 0, 'tasks' => 0, 'lines' => 0, 'sent' => 0, 'conflicts' => []];
        $laid = $this->laid($written);
        foreach ($taken as $entry) {
            foreach ($written[$entry] ?? [] as $row) {
                $type = $this->schemas->schema()->type($row->record_type);
                $field = $type?->field($row->field);
                $key = "{$row->record_type}:{$row->record_id}";
                if ($type === null || $field === null || ! isset($laid[$key])) {
                    continue;
                }
                [$before, $after] = [json_decode((string) $row->before, true), json_decode((string) $row->after, true)];
                if ($laid[$key][$row->field] !== $after) {
                    $sum['conflicts'][] = [
                        'entry' => $entry, 'type' => $type->name, 'record' => (int) $row->record_id, 'number' => $type->numberOf((int) $row->record_id), 'label' => $field->label,
                        'was' => $display->of($field, $before), 'set' => $display->of($field, $after), 'is' => $display->of($field, $laid[$key][$row->field]),
                    ];
                } else {
                    $sum['fields']++;
                    $laid[$key][$row->field] = $before;
                }
            }
        }
        $counted = [
            'tasks' => ['tasks', "status = 'open'"],
            'lines' => ['scheduled_lines', "run_id IS NOT NULL AND status IN ('pencilled', 'held')"],
            'sent' => ['messages', "status <> 'cancelled'"],
        ];
        foreach ($counted as $what => [$table, $where]) {
            $sum[$what] = $taken === [] ? 0 : (int) $this->db->scalar(
                "SELECT COUNT(*) FROM {$table} WHERE entry_id IN (".implode(', ', $taken).") AND {$where}",
            );
        }

        return $sum;
    }

    /**
     * Reverses entries, each with an entry of its own; all of these or none.
     *
     * @param  list<int>  $entries
     * @param  bool  $force  whether fields return that somebody has changed since
     * @return list<int> numbers of the reversals
     */
    public function reverse(array $entries, bool $force, string $why, int $by): array
    {
        if (count($entries) > self::MOST) {
            throw new Refused('too_many', 'At most '.self::MOST.' entries are reversed at once.', 422);
        }

        return $this->db->transaction(function () use ($entries, $force, $why, $by): array {
            $numbers = [];
            foreach ($this->reversible($entries) as $entry) {
                $numbers[] = $this->one($entry, $force, $why, $by);
            }

            return $numbers;
        }, 5);
    }

    private function one(int $entry, bool $force, string $why, int $by): int
    {
        $now = $this->clock->now();
        $row = $this->db->selectOne('SELECT * FROM entries WHERE id = ?', [$entry]);
        $type = $this->schemas->schema()->type((string) $row->record_type) ?? throw new Refused('not_reversible', "Entry {$entry} stands on no record.", 409);
        $kept = [];
        $changes = [];
        foreach ($this->written([$entry])[$entry] ?? [] as $written) {
            $changes["{$written->record_type}:{$written->record_id}"][] = $written;
        }
        $own = "{$row->record_type}:{$row->record_id}";
        // The record of the entry comes first: its new entry is the one that says it was reversed.
        $changes = [$own => $changes[$own] ?? []] + $changes;
        $data = ['of' => $entry, 'why' => mb_substr(trim($why), 0, 200)] + $this->struck($entry, $now);
        $reversed = [];
        foreach ($changes as $key => $fields) {
            [$typeName, $id] = explode(':', $key);
            $about = $this->schemas->schema()->type($typeName);
            $before = $about === null ? null : $this->current($about, (int) $id, ' FOR UPDATE');
            if ($about === null || $before === null) {
                continue;
            }
            $values = [];
            foreach ($fields as $field) {
                $set = $about->field($field->field);
                if ($set === null) {
                    continue;
                }
                $is = array_key_exists($field->field, $values) ? $values[$field->field] : $before->value($field->field);
                if (! $force && $is !== json_decode((string) $field->after, true)) {
                    $kept[] = $set->label;
                } else {
                    $values[$field->field] = json_decode((string) $field->before, true);
                }
            }
            $stamps = ['updated_at' => Value::instantText($now), 'updated_by' => $by];
            $after = $values === [] ? $before : new Record($about->name, $before->id, $before->version + 1, $about->withComputed(array_replace($before->values, $values, $stamps)));
            if ($values !== []) {
                $this->records->write([[$before, $after]]);
            }
            if ($values !== [] || $key === $own) {
                $reversed[] = [$before, $after];
            }
        }
        if ($reversed === []) {
            // The record is gone; what was pencilled in and given is taken back all the same.
            $gone = new Record($type->name, (int) $row->record_id, (int) $row->version, array_fill_keys(array_keys($type->fields), null));
            $reversed[] = [$gone, $gone];
        }
        $data += $kept === [] ? [] : ['kept' => array_values(array_unique($kept))];
        $outcomes = array_map(static fn (array $pair): Outcome => new Outcome(new Change($pair[0], $pair[1], $by, $now), new Decision($pair[1]), new Actor($by), 'reversed', $data, null, $entry, $row->rule_id === null ? null : (int) $row->rule_id), $reversed);
        $number = $this->ledger->write($outcomes)[0][0];
        $this->db->table('reversals')->insert(['entry_id' => $entry, 'by_entry' => $number]);

        return $number;
    }

    /** @return array{tasks: list<string>, lines: int, sent: int} what was taken back besides fields, and what stays sent */
    private function struck(int $entry, \DateTimeImmutable $now): array
    {
        $tasks = $this->db->select("SELECT id, title FROM tasks WHERE entry_id = ? AND status = 'open' FOR UPDATE", [$entry]);
        if ($tasks !== []) {
            $ids = implode(', ', array_map(static fn (object $task): int => (int) $task->id, $tasks));
            $this->db->update("UPDATE tasks SET status = 'cancelled', done_at = ? WHERE id IN ({$ids})", [Columns::moment($now)]);
            $this->db->update(
                "UPDATE scheduled_lines SET status = 'struck', struck_code = 'task_cancelled', struck_because = 'the task was cancelled' WHERE task_id IN ({$ids}) AND status = 'pencilled'",
            );
        }
        $lines = $this->db->update(
            "UPDATE scheduled_lines SET status = 'struck', struck_code = 'reversed', struck_because = 'what pencilled it in was reversed' WHERE entry_id = ? AND run_id IS NOT NULL AND status IN ('pencilled', 'held')",
            [$entry],
        );
        LineRows::close($this->db, array_map(static fn (object $run): int => (int) $run->run_id, $this->db->select('SELECT DISTINCT run_id FROM scheduled_lines WHERE entry_id = ? AND run_id IS NOT NULL', [$entry])));

        return ['tasks' => array_map(static fn (object $task): string => $task->title, $tasks), 'lines' => $lines, 'sent' => (int) $this->db->scalar('SELECT COUNT(*) FROM messages WHERE entry_id = ?', [$entry])];
    }

    /**
     * What entries wrote into fields, and what they wrote into those of other records.
     *
     * @param  list<int>  $entries
     * @return array<int, list<object>> by entry; the last written first
     */
    private function written(array $entries): array
    {
        if ($entries === []) {
            return [];
        }
        $of = array_combine($entries, $entries);
        foreach ($this->db->select('SELECT id, cause_id FROM entries WHERE cause_id IN ('.implode(', ', $entries).") AND kind = 'changed' AND via = 'rule'") as $caused) {
            $of[(int) $caused->id] ??= (int) $caused->cause_id;
        }
        $written = [];
        foreach ($this->db->select('SELECT * FROM field_history WHERE entry_id IN ('.implode(', ', array_keys($of)).') ORDER BY id DESC') as $row) {
            $written[$of[(int) $row->entry_id]][] = $row;
        }

        return $written;
    }

    /**
     * The records as they now are.
     *
     * @param  array<int, list<object>>  $written
     * @return array<string, array<string, string|int|bool|null>> values by type and id
     */
    private function laid(array $written): array
    {
        $ids = [];
        foreach (array_merge([], ...array_values($written)) as $row) {
            $ids[$row->record_type][(int) $row->record_id] = (int) $row->record_id;
        }
        $laid = [];
        foreach ($ids as $name => $records) {
            $type = $this->schemas->schema()->type($name);
            foreach ($type === null ? [] : $this->db->select('SELECT * FROM `'.TypeTable::name($name).'` WHERE id IN ('.implode(', ', $records).')') as $row) {
                $laid["{$name}:{$row->id}"] = Columns::record($type, $row)->values;
            }
        }

        return $laid;
    }

    /**
     * @param  list<int>  $entries
     *
     * @throws Refused when one of them does not exist
     */
    public function mustExist(array $entries): void
    {
        $found = $entries === [] ? [] : $this->db->table('entries')->whereIn('id', $entries)->pluck('id')->map(intval(...))->all();
        $missing = array_diff($entries, $found);
        if ($missing !== []) {
            throw new Refused('not_found', 'There is no entry '.implode(', ', array_slice($missing, 0, 5)).'.', 404);
        }
    }

    /**
     * @param  list<int>  $entries
     * @return bool whether each is an edit that the person made themselves
     */
    public function areOwn(array $entries, int $person): bool
    {
        return $entries !== [] && $this->db->table('entries')->whereIn('id', $entries)->where('actor_id', $person)->where('kind', 'changed')
            ->whereIn('via', ['person', 'api'])->count() === count(array_unique($entries));
    }

    /**
     * @param  list<int>  $entries
     * @return list<int> the newest first
     */
    private function reversible(array $entries): array
    {
        if ($entries === []) {
            return [];
        }
        $places = implode(', ', array_fill(0, count($entries), '?'));

        return array_map(
            static fn (object $row): int => (int) $row->id,
            $this->db->select(
                "SELECT e.id FROM entries e WHERE e.id IN ({$places}) AND ".self::REVERSIBLE.' AND NOT EXISTS (SELECT 1 FROM reversals r WHERE r.entry_id = e.id) ORDER BY e.id DESC',
                $entries,
            ),
        );
    }

    private function current(RecordType $type, int $id, string $lock): ?Record
    {
        $row = $this->db->selectOne('SELECT * FROM `'.TypeTable::name($type->name)."` WHERE id = ?{$lock}", [$id]);

        return $row === null ? null : Columns::record($type, $row);
    }

    private function display(): Display
    {
        return new Display(new PeopleStore($this->db, $this->schemas), $this->company->zone());
    }
}

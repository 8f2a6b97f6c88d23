<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\Condition\Total;
use VividLedger\Engine\Facts;
use VividLedger\Engine\GuardState;
use VividLedger\Engine\TasksOfLine;
use VividLedger\Message\Address;
use VividLedger\People\Person;
use VividLedger\Record\Record;
use VividLedger\Rule\Trigger\FallsQuiet;
use VividLedger\Schema\Children;

/** The engine's facts from the database. Made anew for each save, so that nothing is asked twice and nothing is stale. */
class StoredFacts extends PeopleStore implements Facts
{
    /** @var array<string, ?Record> */
    protected array $records = [];

    /** @var array<string, true> records kept from being changed by others */
    private array $kept = [];

    /** @var array<string, true> record types that were read */
    private array $lookedAt = [];

    /** @var array<string, array<string, true>> guard keys fetched at once, by rule and record */
    private array $keys = [];

    /** @var array<string, mixed> answers given before */
    private array $answers = [];

    public function __construct(
        Connection $db,
        SchemaStore $schemas,
        private readonly \DateTimeImmutable $at,
        private readonly \DateTimeZone $zone,
    ) {
        parent::__construct($db, $schemas);
    }

    /** Whether anything was answered from the records of a type. */
    public function hasLookedAt(string $type): bool
    {
        return isset($this->lookedAt[$type]);
    }

    public function now(): \DateTimeImmutable
    {
        return $this->at;
    }

    public function record(string $type, int $id): ?Record
    {
        $key = "{$type}:{$id}";
        if (! array_key_exists($key, $this->records)) {
            $this->records[$key] = $this->read($type, $id, '');
        }

        return $this->records[$key];
    }

    public function recordToChange(string $type, int $id): ?Record
    {
        $key = "{$type}:{$id}";
        if (! isset($this->kept[$key])) {
            $this->records[$key] = $this->read($type, $id, ' FOR UPDATE');
            $this->kept[$key] = true;
        }

        return $this->records[$key];
    }

    public function children(Children $children, int $parent, int $most): array
    {
        $this->lookedAt[$children->type] = true;
        $type = $this->schemas->schema()->type($children->type);
        if ($type === null) {
            return [];
        }
        $writer = new SqlQueryWriter($this->now(), $this->zone);
        $where = $children->where?->query($writer) ?? new Sql('TRUE');
        $rows = $this->db->select(
            'SELECT t.* FROM `'.TypeTable::name($type->name)."` t{$writer->joins()} WHERE t.`{$children->by}` = ? AND {$where->text} ORDER BY t.id LIMIT {$most}",
            [$parent, ...$where->bindings],
        );

        return array_map(function (object $row) use ($type): Record {
            $record = Columns::record($type, $row);

            return $this->records["{$type->name}:{$record->id}"] ??= $record;
        }, $rows);
    }

    public function total(Total $total, int $parent, array $except): ?string
    {
        $this->lookedAt[$total->children->type] = true;
        $sql = (new SqlQueryWriter($this->now(), $this->zone))->total($total, $parent);
        $text = $except === [] ? $sql->text : substr($sql->text, 0, -1).' AND `t_b1`.id NOT IN ('.implode(', ', $except).'))';
        // Rules that count alike share the answer.
        $key = "total:{$text}".json_encode($sql->bindings);
        if (! array_key_exists($key, $this->answers)) {
            $value = $this->db->scalar("SELECT {$text}", $sql->bindings);
            $this->answers[$key] = $value === null ? null : Columns::value($total->field(), $value);
        }
        $answer = $this->answers[$key];

        return is_string($answer) ? $answer : null;
    }

    public function fallbackPerson(): ?Person
    {
        $id = $this->db->scalar('SELECT fallback_person_id FROM company WHERE id = 1');

        return $id === null ? null : $this->person((int) $id);
    }

    public function team(string $name): array
    {
        return $this->answers["team:{$name}"] ??= array_map(self::made(...), $this->db->select('SELECT '.self::COLUMNS.' FROM people WHERE team = ? AND active ORDER BY id', [$name]));
    }

    public function lastInTurn(string $team): ?int
    {
        // Locked, so that two records at once go to two people; a team that never had a turn needs a row that can be locked.
        // Said so that a row that is there is locked for writing at once: two who only share it could not both go on.
        $this->db->statement('INSERT INTO team_turns (team, person_id) VALUES (?, 0) ON DUPLICATE KEY UPDATE team = team', [$team]);
        $id = (int) $this->db->scalar('SELECT person_id FROM team_turns WHERE team = ? FOR UPDATE', [$team]);

        return $id === 0 ? null : $id;
    }

    public function openTasks(array $people): array
    {
        if ($people === []) {
            return [];
        }
        $places = implode(', ', array_fill(0, count($people), '?'));
        $open = [];
        foreach ($this->db->select("SELECT assignee_id, COUNT(*) AS n FROM tasks WHERE status = 'open' AND assignee_id IN ({$places}) GROUP BY assignee_id", $people) as $row) {
            $open[(int) $row->assignee_id] = (int) $row->n;
        }

        return $open;
    }

    public function followers(string $type, int $id): array
    {
        return array_map(static fn (object $row): int => (int) $row->person_id, $this->db->select('SELECT person_id FROM followers WHERE record_type = ? AND record_id = ? ORDER BY person_id', [$type, $id]));
    }

    /** @param  list<int>  $ids  of records whose guards will be asked for, fetched at once */
    public function rememberGuards(int $rule, string $type, array $ids): void
    {
        [$states, $keys] = GuardStore::states($this->db, $rule, $type, $ids);
        foreach ($ids as $id) {
            $this->answers["guard:{$rule}:{$type}:{$id}"] = $states[$id] ?? new GuardState;
            $this->keys["{$rule}:{$type}:{$id}"] = $keys[$id] ?? [];
        }
    }

    public function guardHeld(int $ruleId, string $type, int $recordId, int $epoch, string $key): bool
    {
        if (isset($this->keys["{$ruleId}:{$type}:{$recordId}"])) {
            return isset($this->keys["{$ruleId}:{$type}:{$recordId}"]["{$epoch}:{$key}"]);
        }

        return $this->db->selectOne(
            'SELECT 1 FROM guard_keys WHERE rule_id = ? AND record_type = ? AND record_id = ? AND epoch = ? AND guard_key = ?',
            [$ruleId, $type, $recordId, $epoch, $key],
        ) !== null;
    }

    public function guardState(int $ruleId, string $type, int $recordId): GuardState
    {
        return $this->answers["guard:{$ruleId}:{$type}:{$recordId}"] ??= GuardStore::state($this->db, $ruleId, $type, $recordId);
    }

    public function freshId(string $type): int
    {
        return (int) $this->db->scalar('SELECT NEXTVAL(`'.TypeTable::sequence($type).'`)');
    }

    public function inPlay(string $type, int $id): array
    {
        return RunsInPlay::of($this->db, $type, $id);
    }

    public function tasksOf(int $run, string $key): ?TasksOfLine
    {
        return RunsInPlay::tasks($this->db, $run, $key);
    }

    public function messagesTo(Address $address, \DateTimeImmutable $since): array
    {
        $rows = $this->db->select('SELECT at FROM message_addresses WHERE address = ? AND at >= ? ORDER BY at', [mb_substr($address->key(), 0, 190), Columns::moment($since)]);

        return array_map(static fn (object $row): \DateTimeImmutable => new \DateTimeImmutable("{$row->at}Z"), $rows);
    }

    private function read(string $typeName, int $id, string $lock): ?Record
    {
        $this->lookedAt[$typeName] = true;
        $type = $this->schemas->schema()->type($typeName);
        $row = $type === null ? null : $this->db->selectOne('SELECT * FROM `'.TypeTable::name($typeName)."` WHERE id = ?{$lock}", [$id]);

        return $type === null || $row === null ? null : Columns::record($type, $row);
    }

    public function silentSince(FallsQuiet $trigger, string $type, int $id): ?\DateTimeImmutable
    {
        return Silence::since($this->db, $trigger, $type, $id);
    }

    public function silenceMark(FallsQuiet $trigger, string $type, int $id): ?int
    {
        return Silence::mark($this->db, $trigger, $type, $id);
    }
}

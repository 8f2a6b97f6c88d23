<?php

declare(strict_types=1);

namespace App\Store;

use App\Models\Columns;
use App\Models\CompanySettings;
use App\Models\Follower;
use App\Models\GuardKey;
use App\Models\MessageAddress;
use App\Models\Person as Row;
use App\Models\StoredRecord;
use App\Models\Task;
use App\Models\TeamTurn;
use App\Store\Sql\Matching;
use App\Store\Sql\SqlQueryWriter;
use App\Store\Sql\Statements;
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
        SchemaStore $schemas,
        private readonly \DateTimeImmutable $at,
        private readonly \DateTimeZone $zone,
    ) {
        parent::__construct($schemas);
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
            $this->records[$key] = $this->read($type, $id, false);
        }

        return $this->records[$key];
    }

    public function recordToChange(string $type, int $id): ?Record
    {
        $key = "{$type}:{$id}";
        if (! isset($this->kept[$key])) {
            $this->records[$key] = $this->read($type, $id, true);
            $this->kept[$key] = true;
        }

        return $this->records[$key];
    }

    /** @param  list<int>  $ids  of records that will be asked for, fetched at once */
    public function rememberRecords(string $typeName, array $ids): void
    {
        $this->lookedAt[$typeName] = true;
        foreach ($ids as $id) {
            $this->records["{$typeName}:{$id}"] = null;
        }
        $type = $this->schemas->schema()->type($typeName);
        if ($type === null) {
            return;
        }
        foreach (StoredRecord::rowsOf($type)->whereIn('id', $ids)->get() as $row) {
            $this->records["{$typeName}:{$row->id}"] = Columns::record($type, $row);
        }
    }

    public function children(Children $children, int $parent, int $most): array
    {
        $this->lookedAt[$children->type] = true;
        $type = $this->schemas->schema()->type($children->type);
        if ($type === null) {
            return [];
        }
        $rows = Matching::query(
            $type,
            $children->where,
            $this->now(),
            $this->zone,
        )->where("t.{$children->by}", $parent)->orderBy('t.id')->limit($most);

        return array_values($rows->get()->map(function (object $row) use ($type): Record {
            $record = Columns::record($type, $row);

            return $this->records["{$type->name}:{$record->id}"] ??= $record;
        })->all());
    }

    public function total(Total $total, int $parent, array $except): ?string
    {
        $this->lookedAt[$total->children->type] = true;
        $sql = (new SqlQueryWriter($this->now(), $this->zone))->total($total, $parent);
        $text = $except === [] ? $sql->text : substr($sql->text, 0, -1).' AND `t_b1`.id NOT IN ('.implode(', ', $except).'))';
        // Rules that count alike share the answer.
        $key = "total:{$text}".json_encode($sql->bindings);
        if (! array_key_exists($key, $this->answers)) {
            $value = Statements::value($text, $sql->bindings);
            $this->answers[$key] = $value === null ? null : Columns::value($total->field(), $value);
        }
        $answer = $this->answers[$key];

        return is_string($answer) ? $answer : null;
    }

    public function fallbackPerson(): ?Person
    {
        $id = CompanySettings::query()->whereKey(CompanySettings::ID)->value('fallback_person_id');

        return $id === null ? null : $this->person($id);
    }

    public function team(string $name): array
    {
        return $this->answers["team:{$name}"] ??= self::all(Row::rows()->where('team', $name)->where('active', true)->orderBy('id'));
    }

    public function lastInTurn(string $team): ?int
    {
        // Locked, so that two records at once go to two people; a team that never had a turn needs a row that can be locked.
        // Said so that a row that is there is locked for writing at once: two who only share it could not both go on.
        TeamTurn::rows()->upsert(['team' => $team, 'person_id' => 0], ['team'], ['team']);
        $id = (int) TeamTurn::rows()->where('team', $team)->lockForUpdate()->value('person_id');

        return $id === 0 ? null : $id;
    }

    public function openTasks(array $people): array
    {
        if ($people === []) {
            return [];
        }

        return Task::openByPerson($people);
    }

    public function followers(string $type, int $id): array
    {
        return Columns::ints(Follower::query()->about($type, $id)->orderBy('person_id')->pluck('person_id'));
    }

    /** @param  list<int>  $ids  of records whose guards will be asked for, fetched at once */
    public function rememberGuards(int $rule, string $type, array $ids): void
    {
        [$states, $keys] = GuardStore::states($rule, $type, $ids);
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

        return GuardKey::query()->about($type, $recordId)->where('rule_id', $ruleId)->where('epoch', $epoch)->where('guard_key', $key)
            ->exists();
    }

    public function guardState(int $ruleId, string $type, int $recordId): GuardState
    {
        return $this->answers["guard:{$ruleId}:{$type}:{$recordId}"] ??= GuardStore::state($ruleId, $type, $recordId);
    }

    public function freshId(string $type): int
    {
        return Statements::next(StoredRecord::sequenceOf($type));
    }

    public function inPlay(string $type, int $id): array
    {
        return RunsInPlay::of($type, $id);
    }

    public function tasksOf(int $run, string $key): ?TasksOfLine
    {
        return RunsInPlay::tasks($run, $key);
    }

    public function messagesTo(Address $address, \DateTimeImmutable $since): array
    {
        return array_map(Columns::instant(...), Columns::texts(MessageAddress::query()->where(
            'address',
            MessageAddress::key($address),
        )->where('at', '>=', Columns::moment($since))
            ->orderBy('at')->toBase()->pluck('at')));
    }

    private function read(string $typeName, int $id, bool $lock): ?Record
    {
        $this->lookedAt[$typeName] = true;
        $type = $this->schemas->schema()->type($typeName);

        return $type === null ? null : StoredRecord::read($type, $id, $lock);
    }

    public function silentSince(FallsQuiet $trigger, string $type, int $id): ?\DateTimeImmutable
    {
        return Silence::since($trigger, $type, $id);
    }

    public function silenceMark(FallsQuiet $trigger, string $type, int $id): ?int
    {
        return Silence::mark($trigger, $type, $id);
    }
}

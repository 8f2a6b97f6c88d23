<?php

declare(strict_types=1);

namespace App\Store;

use App\Models\FieldChange;
use App\Models\GuardKey;
use App\Models\StoredRecord;
use VividLedger\Condition\Total;
use VividLedger\Engine\Facts;
use VividLedger\Engine\GuardState;
use VividLedger\Engine\TasksOfLine;
use VividLedger\Message\Address;
use VividLedger\People\Person;
use VividLedger\Record\Record;
use VividLedger\Rule\Trigger\FallsQuiet;
use VividLedger\Schema\Children;

/**
 * The engine's facts as they stood just after an entry: records from their history, guards without later keys. Nothing is taken or kept.
 */
final class PastFacts extends PeopleStore implements Facts
{
    /** @var array<string, ?Record> */
    private array $records = [];

    private int $made = 0;

    public function __construct(
        SchemaStore $schemas,
        private readonly History $history,
        private readonly int $entry,
        private readonly \DateTimeImmutable $at,
    ) {
        parent::__construct($schemas);
    }

    public function now(): \DateTimeImmutable
    {
        return $this->at;
    }

    public function record(string $type, int $id): ?Record
    {
        if (! array_key_exists("{$type}:{$id}", $this->records)) {
            $recordType = $this->schemas->schema()->type($type);
            $this->records["{$type}:{$id}"] = $recordType === null ? null : $this->history->recordAfter($recordType, $id, $this->entry);
        }

        return $this->records["{$type}:{$id}"];
    }

    public function recordToChange(string $type, int $id): ?Record
    {
        return $this->record($type, $id);
    }

    public function children(Children $children, int $parent, int $most): array
    {
        // Those that refer to it now, and those that did at some time since.
        $once = FieldChange::rows()->where('record_type', $children->type)->where('field', $children->by)
            ->where('entry_id', '>', $this->entry)->where('before', (string) $parent)->select('record_id');
        $ids = StoredRecord::rowsOf($children->type)->where($children->by, $parent)->select('id')->union($once)->orderBy('id')->pluck('id');
        $found = [];
        foreach ($ids as $id) {
            $record = $this->record($children->type, (int) $id);
            if ($record !== null && $children->has($record, $parent, $this)) {
                $found[] = $record;
            }
            if (count($found) === $most) {
                break;
            }
        }

        return $found;
    }

    public function total(Total $total, int $parent, array $except): ?string
    {
        $children = $this->children($total->children, $parent, PHP_INT_MAX);

        return $total->over(array_filter($children, static fn (Record $record): bool => ! in_array($record->id, $except, true)));
    }

    public function fallbackPerson(): ?Person
    {
        return null;
    }

    public function team(string $name): array
    {
        return array_values(array_filter($this->peopleAtWork(), static fn (Person $person): bool => $person->team === $name));
    }

    public function lastInTurn(string $team): ?int
    {
        return null;
    }

    public function openTasks(array $people): array
    {
        return [];
    }

    public function followers(string $type, int $id): array
    {
        return [];
    }

    public function guardHeld(int $ruleId, string $type, int $recordId, int $epoch, string $key): bool
    {
        return GuardKey::query()->about($type, $recordId)->where('rule_id', $ruleId)->where('epoch', $epoch)->where('guard_key', $key)
            ->where('entry_id', '<', $this->entry)->exists();
    }

    public function guardState(int $ruleId, string $type, int $recordId): GuardState
    {
        return GuardStore::state($ruleId, $type, $recordId, $this->entry);
    }

    /** Nothing is written, so any number will do that no record has. */
    public function freshId(string $type): int
    {
        return PHP_INT_MAX - ++$this->made;
    }

    /** What is in play now says nothing of then; whether a rule fired does not hang on it. */
    public function inPlay(string $type, int $id): array
    {
        return [];
    }

    public function tasksOf(int $run, string $key): ?TasksOfLine
    {
        return null;
    }

    public function messagesTo(Address $address, \DateTimeImmutable $since): array
    {
        return [];
    }

    /** Silences of the past are found by replaying it. */
    public function silenceMark(FallsQuiet $trigger, string $type, int $id): null
    {
        return null;
    }

    public function silentSince(FallsQuiet $trigger, string $type, int $id): null
    {
        return null;
    }
}

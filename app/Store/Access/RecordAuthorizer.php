<?php

declare(strict_types=1);

namespace App\Store\Access;

use App\Models\Records\StoredRecord;
use App\Store\DomainError;
use App\Store\People\PeopleStore;
use App\Store\Records\RecordHistory;
use App\Store\RefusedFor;
use App\Store\Sql\RecordSql;
use App\Store\Types\SchemaStore;
use VividLedger\Rights\Act;
use VividLedger\Rights\FieldAccess;
use VividLedger\Rights\Reach;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/**
 * Where a person is let through to a record, or not. A record they do not see is not there for them: the answer is the same as for one
 * that never was.
 */
final readonly class RecordAuthorizer
{
    public function __construct(
        private AccessScope $inSight,
        private SchemaStore $schemas,
        private RecordHistory $history,
        private PeopleStore $people,
    ) {
    }

    /** @throws DomainError when there is no such type for them */
    public function type(string $name): RecordType
    {
        $type = $this->schemas->schema()->type($name);
        if ($type === null || $this->inSight->sight()->role->reach(Act::Read, $name) === Reach::None) {
            throw DomainError::missing(Words::say('There is no record type ‘{name}’.', name: $name));
        }

        return $type;
    }

    /** @throws DomainError when they never do this with records of the type */
    public function mustEver(Act $act, RecordType $type): void
    {
        if ($this->inSight->sight()->role->reach($act, $type->name) === Reach::None) {
            throw $this->refused($act, $type);
        }
    }

    /** @throws DomainError */
    public function mustMay(Act $act, RecordType $type, int $id): void
    {
        $this->mustEver($act, $type);
        if ($this->inSight->isUnbounded($act, $type->name) && $this->inSight->isUnbounded(Act::Read, $type->name)) {
            return;
        }
        $sight = $this->inSight->sight();
        $record = RecordSql::record($type, $id) ?? $this->history->beforeDeletion($type, $id);
        if ($record === null || ! $sight->covers(Act::Read, $type, $record)) {
            throw DomainError::noRecord($type, $id);
        }
        if (! $sight->covers($act, $type, $record)) {
            throw $this->refused($act, $type);
        }
    }

    /**
     * The same for many records.
     *
     * @param  list<int>  $ids
     *
     * @throws DomainError
     */
    public function mustMayAll(Act $act, RecordType $type, array $ids): void
    {
        $where = $this->inSight->where($type, StoredRecord::tableOf($type->name), $act);
        $reached = $where === null ? $ids : StoredRecord::rowsOf($type)->whereIn('id', $ids)->whereRaw($where)->pluck('id')->all();
        foreach (array_diff($ids, $reached) as $id) {
            $this->mustMay($act, $type, $id);
        }
    }

    public function sees(string $type, int $id): bool
    {
        try {
            $this->mustMay(Act::Read, $this->type($type), $id);

            return true;
        } catch (DomainError) {
            return false;
        }
    }

    /**
     * @param  array<array-key, mixed>  $values  raw, by field, of a record that is to be
     *
     * @throws DomainError
     */
    public function mustMake(RecordType $type, array $values): void
    {
        $this->mustEver(Act::Create, $type);
        $this->mustWrite($type, $values);
        $owners = $this->inSight->sight()->owners(Act::Create, $type->name);
        $owner = $values[$type->owner] ?? null;
        if ($owners !== null && $owner !== null && $owner !== '' && ! in_array($this->people->idOf($owner), $owners, true)) {
            $message = $this->limits(Act::Create, $type);
            throw new DomainError('not_allowed', $message, RefusedFor::NotAllowed, [
                ['at' => "/values/{$type->owner}", 'code' => 'not_allowed', 'message' => $message],
            ]);
        }
    }

    /**
     * @param  array<array-key, mixed>  $values  raw, by field
     *
     * @throws DomainError
     */
    public function mustWrite(RecordType $type, array $values): void
    {
        $sight = $this->inSight->sight();
        $seen = $sight->type($type);
        $problems = [];
        foreach (array_keys($values) as $name) {
            $field = $type->field((string) $name);
            if ($field === null) {
                continue;
            }
            if ($seen->field($field->name) === null) {
                $problems[] = [
                    'at' => "/values/{$name}", 'code' => 'unknown_field', 'message' => Words::say(
                        '{type} has no field ‘{name}’.',
                        type: $type->label,
                        name: $name,
                    ),
                ];
            } elseif ($sight->role->access($type->name, $field->name) !== FieldAccess::Full) {
                $problems[] = [
                    'at' => "/values/{$name}", 'code' => 'read_only',
                    'message' => Words::say(
                        'As {role} you see {field}, but do not change it.',
                        role: $sight->role->label,
                        field: $field->label,
                    ),
                ];
            }
        }
        if ($problems !== []) {
            throw new DomainError('invalid_values', $problems[0]['message'], RefusedFor::Invalid, $problems);
        }
    }

    private function refused(Act $act, RecordType $type): DomainError
    {
        return new DomainError('not_allowed', $this->limits($act, $type), RefusedFor::NotAllowed);
    }

    private function limits(Act $act, RecordType $type): string
    {
        $role = $this->inSight->sight()->role;
        $reach = $role->reach($act, $type->name);
        $plural = Words::within($type->plural);

        return $reach === Reach::None ? Words::say(
            'As {role} you do not {act} {plural}.',
            role: $role->label,
            act: $act->said(),
            plural: $plural,
        )
            : Words::say(
                'As {role} you {act} {plural} only where they are {reach}.',
                role: $role->label,
                act: $act->said(),
                plural: $plural,
                reach: $reach->label(),
            );
    }
}

<?php

declare(strict_types=1);

namespace App\Store\Inbound;

use App\Models\Inbound\Hook;
use App\Models\Inbound\HookArrival;
use App\Store\DomainError;
use App\Store\Library\KeptStore;
use App\Store\RefusedFor;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Connection;
use VividLedger\Rule\Trigger\HookName;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** Hooks, kept in Setup: which record what arrives becomes, and by what it is signed. */
final readonly class HookStore
{
    private const NAME_LENGTH = 60;

    public function __construct(private Connection $db, private SchemaStore $schemas, private KeptStore $kept)
    {
    }

    /**
     * @param  ?int  $version  of the one being changed, as the person saw it
     * @param  array{
     *     name: string, recordType: string, takes: list<array{path: string, field: string}>,
     *     starts: list<array{field: string, value: string}>, knownBy: ?string, mayCreate: bool, isOpen: bool, freshSecret: bool,
     * }  $given
     * @return array{Hook, ?string} the hook, and its secret where it is new: it is told this once
     *
     * @throws DomainError
     */
    public function keep(?int $id, ?int $version, array $given): array
    {
        $name = trim($given['name']);
        $this->check($name, $given);

        return $this->db->transaction(function () use ($id, $version, $name, $given): array {
            $hook = $id === null ? new Hook : Hook::query()->lockForUpdate()->find($id);
            if ($hook === null) {
                throw DomainError::missing(Words::say('There is no such hook.'));
            }
            if ($id !== null && $version !== null && $hook->version !== $version) {
                throw new DomainError(
                    'stale_version',
                    Words::say('Somebody changed it after you opened it. Open it again.'),
                    RefusedFor::Conflict,
                );
            }
            $taken = Hook::query()->where('name', $name)->lockForUpdate()->value('id');
            if ($taken !== null && $taken !== $id) {
                throw DomainError::at('/name', Words::say('There is one of that name already.'), RefusedFor::Conflict);
            }
            $isOther = $hook->name !== $name || $hook->record_type !== $given['recordType'];
            if ($id !== null && $isOther && $this->kept->usersOf(HookName::KEY, $hook->name) !== []) {
                $message = Words::say('‘{hook}’ keeps its name and what it becomes while rules wait for it.', hook: $hook->name);
                throw DomainError::at('/name', $message, RefusedFor::Conflict);
            }
            $secret = $id === null || $given['freshSecret'] ? 'whsec_'.base64_encode(random_bytes(24)) : null;
            $hook->fill([
                'name' => $name, 'record_type' => $given['recordType'], 'takes' => $given['takes'], 'starts' => $given['starts'],
                'known_by' => $given['knownBy'],
                'may_create' => $given['mayCreate'], 'is_open' => $given['isOpen'], 'version' => $id === null ? 1 : $hook->version + 1,
                'key' => $id === null ? bin2hex(random_bytes(16)) : $hook->key,
            ] + ($secret === null ? [] : ['secret' => $secret]));
            $hook->save();

            return [$hook, $secret];
        });
    }

    /**
     * What arrived goes with it; what it became stays.
     *
     * @throws DomainError while rules wait for it
     */
    public function drop(int $id): void
    {
        $this->db->transaction(function () use ($id): void {
            $hook = Hook::query()->lockForUpdate()->find($id)
                ?? throw DomainError::missing(Words::say('There is no such hook.'));
            $users = $this->kept->usersOf(HookName::KEY, $hook->name);
            if ($users !== []) {
                throw new DomainError(
                    'in_use',
                    Words::say('Rules wait for ‘{hook}’: {users}.', hook: $hook->name, users: implode(', ', $users)),
                    RefusedFor::Conflict,
                );
            }
            HookArrival::query()->where('hook_id', $id)->delete();
            $hook->delete();
        });
    }

    /**
     * @param  array{
     *     recordType: string, takes: list<array{path: string, field: string}>, starts: list<array{field: string, value: string}>,
     *     knownBy: ?string, mayCreate: bool,
     * }  $given
     */
    private function check(string $name, array $given): void
    {
        if ($name === '' || mb_strlen($name) > self::NAME_LENGTH) {
            throw DomainError::at(
                '/name',
                $name === ''
                    ? Words::say('Give it a name.')
                    : Words::say('A name has at most {most} characters.', most: self::NAME_LENGTH),
            );
        }
        $type = $this->schemas->schema()->type($given['recordType'])
            ?? throw DomainError::at('/recordType', Words::say('Choose what it becomes.'));
        if ($given['takes'] === []) {
            throw DomainError::at('/takes', Words::say('Say what goes into at least one field.'));
        }
        $seen = [];
        foreach ($given['takes'] as $index => $taken) {
            $this->checkField($type, "/takes/{$index}/field", $taken['field'], $seen);
            if (preg_match('/^[^.\s][^\s]*$/Du', $taken['path']) !== 1) {
                throw DomainError::at(
                    "/takes/{$index}/path",
                    Words::say('‘{path}’ is no member. Write it like customer.name.', path: $taken['path']),
                );
            }
            $seen[] = $taken['field'];
        }
        $set = [];
        foreach ($given['starts'] as $index => $start) {
            $this->checkField($type, "/starts/{$index}/field", $start['field'], $set);
            $set[] = $start['field'];
        }
        if ($given['knownBy'] !== null && ! in_array($given['knownBy'], $seen, true)) {
            throw DomainError::at('/knownBy', Words::say('What it is known by has to arrive: choose one of the fields above.'));
        }
        if ($given['knownBy'] === null && ! $given['mayCreate']) {
            throw DomainError::at('/knownBy', Words::say('It makes nothing and finds nothing. Choose by which field a record is known.'));
        }
    }

    /** @param  list<string>  $seen */
    private function checkField(RecordType $type, string $at, string $name, array $seen): void
    {
        $field = $type->field($name);
        if ($field === null || ! $field->isSettable()) {
            throw DomainError::at(
                $at,
                $name === ''
                    ? Words::say('Choose a field.')
                    : Words::say('{type} has no field ‘{name}’ that can be set.', type: $type->label, name: $name),
            );
        }
        if (in_array($name, $seen, true)) {
            throw DomainError::at($at, Words::say('{field} is filled twice.', field: $field->label));
        }
    }
}

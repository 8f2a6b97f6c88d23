<?php

declare(strict_types=1);

namespace Tests\App\Support;

use App\Models\Records\StoredRecord;
use App\Store\Actor;
use App\Store\LedgerConnection;
use App\Store\Records\SaveRecord;
use Random\Engine\Mt19937;
use Random\Randomizer;
use VividLedger\Schema\RecordType;

/**
 * Random rules between customers and their tickets, and random saves of them: each reads, counts or writes what others save at
 * the moment.
 */
final class Families
{
    private const STATUSES = ['open', 'waiting', 'partner', 'closed'];

    public const CUSTOMERS = 2;

    public readonly Randomizer $random;

    public function __construct(int $seed)
    {
        $this->random = new Randomizer(new Mt19937($seed));
    }

    /** @return array<string, mixed> the file of a rule */
    public function rule(string $name): array
    {
        return ['name' => $name] + match ($this->random->getInt(0, 4)) {
            // Judged on the customer, set off by its tickets.
            0, 1 => ['on' => 'customer', 'when' => ['kind' => 'related', 'related' => 'ticket.customer'] + $this->one([
                ['happening' => 'created'], ['happening' => 'created_or_changed'],
                ['happening' => 'changed', 'fields' => [$this->one(['status', 'hours', 'customer'])]],
            ]), 'onlyIf' => $this->all($this->counted('ticket.customer'), $this->own()), 'fires' => $this->guard(['status', 'depot']),
                'lines' => [$this->counting(null), ...$this->some(['field' => 'depot', 'to' => $this->value(['quayside', 'hillgate'])])]],
            // Judged on the ticket, by what its customer and its sisters are.
            2 => ['on' => 'ticket', 'when' => $this->one([['kind' => 'created'], ['kind' => 'changed', 'fields' => ['status']]]),
                'onlyIf' => $this->all($this->counted('customer>ticket.customer'),
                    ['kind' => 'at_least', 'field' => 'customer.open_tickets',
                        'value' => (string) $this->random->getInt(0, 9)]),
                'fires' => $this->guard(['status']), 'lines' => [$this->counting('customer')]],
            3 => ['on' => 'ticket', 'when' => ['kind' => 'created_or_changed'],
                'onlyIf' => $this->all($this->counted('customer>ticket.customer')), 'fires' => $this->guard(['status']),
                'lines' => [['kind' => 'set_fields', 'set' => [['field' => 'hours', 'to' => ['kind' => 'add', 'amount' => '1']]]]]],
            // From the customer down to its tickets.
            default => ['on' => 'customer', 'when' => ['kind' => 'changed', 'fields' => [$this->one(['status', 'open_tickets'])]],
                'onlyIf' => $this->all($this->counted('ticket.customer')), 'fires' => $this->guard(['status']),
                'lines' => [['kind' => 'set_fields', 'on' => 'ticket.customer', 'where' => $this->open(), 'set' => [
                    ['field' => 'cost', 'to' => ['kind' => 'add', 'amount' => '5']],
                    ...$this->random->getInt(0, 2) > 0 ? [] : [['field' => 'status', 'to' => $this->value(self::STATUSES)]],
                ]]]],
        };
    }

    /** @return array{type: string, which: string, values: array<string, string|int>} a save; records go by names until they are saved */
    public function save(string $process, int $nth): array
    {
        $customer = 'customer '.$this->random->getInt(1, self::CUSTOMERS);
        $ticket = 'ticket '.$this->random->getInt(1, 2 * self::CUSTOMERS);

        return match ($this->random->getInt(0, 5)) {
            0, 1 => ['type' => 'ticket', 'which' => "new {$process} {$nth}", 'values' => ['customer' => $customer, 'priority' => 'normal',
                'status' => $this->one(self::STATUSES), 'subject' => "new {$process} {$nth}",
                'hours' => (string) $this->random->getInt(0, 4),
            ]],
            2, 3 => ['type' => 'ticket', 'which' => $ticket, 'values' => ['status' => $this->one(self::STATUSES)]],
            4 => ['type' => 'ticket', 'which' => $ticket,
                'values' => ['hours' => (string) $this->random->getInt(0, 9), 'customer' => $customer]],
            default => ['type' => 'customer', 'which' => $customer, 'values' => ['status' => $this->one(['prospect', 'active', 'lost'])]],
        };
    }

    /**
     * Saves among the records of one family, whichever version they have.
     *
     * @param  array{type: string, which: string, values: array<string, string|int>}  $one
     * @param  string  $family  what the names of its records begin with
     * @param  array<string, RecordType>  $types
     * @return ?int the entry of the save; null when it changed nothing
     */
    public static function saved(array $one, string $family, array $types, SaveRecord $save, LedgerConnection $db): ?int
    {
        $id = static fn (string $type, string $name): int => (int) StoredRecord::rowsOf($type)
            ->where($types[$type]->title, "{$family} {$name}")->value('id');
        if (isset($one['values']['customer'])) {
            $one['values']['customer'] = $id('customer', (string) $one['values']['customer']);
        }
        if (str_starts_with($one['which'], 'new')) {
            return $save->create($types['ticket'], ['subject' => "{$family} {$one['which']}"] + $one['values'], new Actor(1))->entryId;
        }
        $which = $id($one['type'], $one['which']);

        // As it is when its turn has come.
        return $db->transaction(static fn (): ?int => $save->change($types[$one['type']], $which, (int) StoredRecord::rowsOf($one['type'])
            ->where('id', $which)->lockForUpdate()->value('version'), $one['values'], new Actor(1))->entryId);
    }

    /**
     * @template T
     *
     * @param  non-empty-list<T>  $from
     * @return T
     */
    private function one(array $from): mixed
    {
        return $from[$this->random->getInt(0, count($from) - 1)];
    }

    /** @return array<string, mixed> */
    private function counted(string $relation): array
    {
        return ['kind' => $this->one(['at_least', 'under', 'over']), 'total' => $this->one([
            ['of' => 'count', 'relation' => $relation, 'where' => $this->open()], ['of' => 'count', 'relation' => $relation],
            ['of' => 'sum', 'relation' => $relation, 'field' => 'hours'],
        ]), 'value' => (string) $this->random->getInt(2, 7)];
    }

    /** @return array<string, mixed> */
    private function open(): array
    {
        return ['kind' => 'all', 'of' => [['kind' => 'is_not', 'field' => 'status', 'value' => 'closed']]];
    }

    /** @return array<string, mixed> */
    private function own(): array
    {
        return $this->one([['kind' => 'is_not', 'field' => 'status', 'value' => 'lost'],
            ['kind' => 'under', 'field' => 'open_tickets', 'value' => (string) $this->random->getInt(5, 30)]]);
    }

    /** @return array<string, mixed> */
    private function all(mixed ...$conditions): array
    {
        return ['kind' => 'all', 'of' => array_slice($conditions, 0, $this->random->getInt(1, count($conditions)))];
    }

    /**
     * @param  non-empty-list<string>  $fields
     * @return array<string, mixed>
     */
    private function guard(array $fields): array
    {
        return $this->one([['kind' => 'every_time'], ['kind' => 'every_time'], ['kind' => 'becomes_true'], ['kind' => 'once_per_record'],
            ['kind' => 'once_per_value', 'field' => $this->one($fields)], ['kind' => 'so_many_times', 'times' => 3]]);
    }

    /** @return array<string, mixed> a line that adds one */
    private function counting(?string $on): array
    {
        return ['kind' => 'set_fields', ...($on === null ? [] : ['on' => $on]), 'set' => [
            ['field' => 'open_tickets', 'to' => ['kind' => 'add', 'amount' => '1']],
        ]];
    }

    /**
     * @param  non-empty-list<string>  $of
     * @return array{kind: string, value: string}
     */
    private function value(array $of): array
    {
        return ['kind' => 'value', 'value' => $this->one($of)];
    }

    /**
     * @param  array<string, mixed>  $set
     * @return list<array<string, mixed>>
     */
    private function some(array $set): array
    {
        return $this->random->getInt(0, 1) === 0 ? [] : [['kind' => 'set_fields', 'set' => [$set]]];
    }
}

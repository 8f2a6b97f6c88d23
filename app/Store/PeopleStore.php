<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\People\Directory;
use VividLedger\People\Person;

/** Names of people and records, remembered as long as the object lives. */
class PeopleStore implements Directory
{
    /** @var array<int, ?Person> */
    private array $people = [];

    /** @var array<string, array<int, ?string>> */
    private array $titles = [];

    public function __construct(
        protected readonly Connection $db,
        protected readonly SchemaStore $schemas,
    ) {
    }

    public function person(int $id): ?Person
    {
        if (! array_key_exists($id, $this->people)) {
            $this->rememberPeople([$id]);
        }

        return $this->people[$id];
    }

    public function personByHandle(string $handle): ?Person
    {
        $row = $this->db->selectOne('SELECT id, handle, name, manager_id, active FROM people WHERE handle = ?', [$handle]);

        return $row === null ? null : $this->people[$row->id] = self::made($row);
    }

    public function title(string $type, int $id): ?string
    {
        if (! isset($this->titles[$type]) || ! array_key_exists($id, $this->titles[$type])) {
            $this->rememberTitles($type, [$id]);
        }

        return $this->titles[$type][$id] ?? null;
    }

    /** @param  list<int>  $ids fetched together, to be answered from memory afterwards */
    public function rememberPeople(array $ids): void
    {
        $ids = array_values(array_filter(array_unique($ids), fn (int $id): bool => ! array_key_exists($id, $this->people)));
        if ($ids === []) {
            return;
        }
        $this->people += array_fill_keys($ids, null);
        $places = implode(', ', array_fill(0, count($ids), '?'));
        // Their managers come along: who asks for the one often asks for the other.
        $rows = $this->db->select(
            "SELECT id, handle, name, manager_id, active FROM people WHERE id IN ({$places})
            UNION SELECT m.id, m.handle, m.name, m.manager_id, m.active FROM people p JOIN people m ON m.id = p.manager_id WHERE p.id IN ({$places})",
            [...$ids, ...$ids],
        );
        foreach ($rows as $row) {
            $this->people[$row->id] = self::made($row);
        }
    }

    /** @param  list<int>  $ids fetched together, to be answered from memory afterwards */
    public function rememberTitles(string $typeName, array $ids): void
    {
        $type = $this->schemas->schema()->type($typeName);
        $ids = array_values(array_filter(array_unique($ids), fn (int $id): bool => ! array_key_exists($id, $this->titles[$typeName] ?? [])));
        if ($type === null || $ids === []) {
            return;
        }
        $this->titles[$typeName] = ($this->titles[$typeName] ?? []) + array_fill_keys($ids, null);
        $table = TypeTable::name($typeName);
        $places = implode(', ', array_fill(0, count($ids), '?'));
        foreach ($this->db->select("SELECT id, `{$type->title}` AS title FROM `{$table}` WHERE id IN ({$places})", $ids) as $row) {
            $this->titles[$typeName][$row->id] = $row->title ?? $type->numberOf($row->id);
        }
    }

    private static function made(object $row): Person
    {
        return new Person((int) $row->id, $row->handle, $row->name, $row->manager_id === null ? null : (int) $row->manager_id, (bool) $row->active);
    }
}

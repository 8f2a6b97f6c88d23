<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\People\Directory;
use VividLedger\People\Person;
use VividLedger\Time\WorkingCalendar;

/** Names of people and records, and what the company keeps under a name; remembered as long as the object lives. */
class PeopleStore implements Directory
{
    protected const COLUMNS = 'id, handle, name, manager_id, active, team, email, phone, time_zone, role';

    /** @var array<int, ?Person> */
    private array $people = [];

    private ?CalendarStore $calendars = null;

    /** @var array<string, array<int, ?string>> */
    private array $titles = [];

    public function __construct(
        protected readonly Connection $db,
        protected readonly SchemaStore $schemas,
    ) {
    }

    public function calendar(?Person $person): WorkingCalendar
    {
        return ($this->calendars ??= new CalendarStore($this->db))->calendar($person);
    }

    public function ladders(): array
    {
        return array_map(static fn (object $row): string => $row->name, $this->db->select('SELECT name FROM ladders ORDER BY name'));
    }

    public function ladder(string $name): ?array
    {
        $rungs = $this->db->scalar('SELECT rungs FROM ladders WHERE name = ?', [$name]);

        return $rungs === null ? null : json_decode((string) $rungs, true, 32, JSON_THROW_ON_ERROR);
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
        // Handles are ASCII, and the database compares nothing else with them.
        $row = preg_match('/^[\x21-\x7E]{1,64}$/', $handle) !== 1 ? null : $this->db->selectOne(
            'SELECT '.self::COLUMNS.' FROM people WHERE handle = ?',
            [$handle],
        );

        return $row === null ? null : $this->people[$row->id] = self::made($row);
    }

    public function peopleAtWork(): array
    {
        return array_map(self::made(...), $this->db->select('SELECT '.self::COLUMNS.' FROM people WHERE active ORDER BY name'));
    }

    /**
     * Somebody as the API names them: by id or by handle.
     *
     * @return ?int null when there is nobody of that name
     */
    public function idOf(mixed $given): ?int
    {
        if (is_string($given) && preg_match('/^[0-9]{1,18}$/', $given) !== 1) {
            return $this->personByHandle($given)?->id;
        }

        return is_int($given) || is_string($given) ? $this->person((int) $given)?->id : null;
    }

    /** @return list<Person> those who have left included */
    public function everybody(): array
    {
        return array_map(self::made(...), $this->db->select('SELECT '.self::COLUMNS.' FROM people ORDER BY id'));
    }

    public function teams(): array
    {
        return array_map(static fn (object $row): string => $row->team, $this->db->select('SELECT DISTINCT team FROM people WHERE active ORDER BY team'));
    }

    public function namedConditions(string $type): array
    {
        return array_map(static fn (object $row): string => $row->name, $this->db->select('SELECT name FROM named_conditions WHERE record_type = ? ORDER BY name', [$type]));
    }

    public function namedCondition(string $type, string $name): ?array
    {
        $file = $this->db->scalar('SELECT file FROM named_conditions WHERE record_type = ? AND name = ?', [$type, $name]);

        return $file === null ? null : json_decode((string) $file, true, 512, JSON_THROW_ON_ERROR);
    }

    public function letters(string $type): array
    {
        return array_map(static fn (object $row): string => $row->name, $this->db->select('SELECT name FROM letters WHERE record_type = ? ORDER BY name', [$type]));
    }

    public function letter(string $name): ?array
    {
        $row = $this->db->selectOne('SELECT v.subject, v.body FROM letters l JOIN letter_versions v ON v.letter_id = l.id AND v.number = l.version WHERE l.name = ?', [$name]);

        return $row === null ? null : ['subject' => $row->subject, 'body' => $row->body];
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
        $managers = implode(', ', array_map(static fn (string $column): string => "m.{$column}", explode(', ', self::COLUMNS)));
        // Their managers come along: who asks for the one often asks for the other.
        $rows = $this->db->select(
            'SELECT '.self::COLUMNS." FROM people WHERE id IN ({$places})
            UNION SELECT {$managers} FROM people p JOIN people m ON m.id = p.manager_id WHERE p.id IN ({$places})",
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

    protected static function made(object $row): Person
    {
        return new Person(
            (int) $row->id,
            $row->handle,
            $row->name,
            $row->manager_id === null ? null : (int) $row->manager_id,
            (bool) $row->active,
            $row->team,
            $row->email,
            $row->phone,
            $row->time_zone,
            $row->role,
        );
    }
}

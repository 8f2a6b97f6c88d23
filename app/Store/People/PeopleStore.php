<?php

declare(strict_types=1);

namespace App\Store\People;

use App\Models\Columns;
use App\Models\Inbound\Hook;
use App\Models\Library\StoredCondition;
use App\Models\Library\StoredLadder;
use App\Models\Library\StoredLetter;
use App\Models\Library\StoredRoute;
use App\Models\Outbound\Endpoint;
use App\Models\People\Person as Row;
use App\Models\Records\StoredRecord;
use App\Models\Slips\SlipForm;
use App\Store\Access\AccessScope;
use App\Store\Library\CalendarStore;
use App\Store\Sql\RecordSql;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Query\Builder;
use VividLedger\House\Directory;
use VividLedger\House\Person;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Time\WorkingCalendar;

/** Names of people and records, and what the company keeps under a name; remembered as long as the object lives. */
final class PeopleStore implements Directory
{
    private const COLUMNS = [
        'id', 'handle', 'name', 'manager_id', 'active', 'team', 'email', 'phone', 'time_zone', 'role', 'sign_off_limit',
        'sign_off_limits', 'away', 'deputy_id', 'stand_in_id',
    ];

    /** @var array<int, ?Person> */
    private array $people = [];

    private ?CalendarStore $calendars = null;

    /** @var array<string, array<int, ?string>> */
    private array $titles = [];

    /** @var array<string, list<string>> names of what is kept, which every line that names one asks for */
    private array $named = [];

    private bool $hasToldTitles = false;

    /** @param  ?AccessScope  $inSight  for whom: a record they do not see has its number for a title; null for the house */
    public function __construct(
        private readonly SchemaStore $schemas,
        private readonly ?AccessScope $inSight = null,
    ) {
    }

    public function calendar(?Person $person): WorkingCalendar
    {
        return ($this->calendars ??= new CalendarStore)->calendar($person);
    }

    public function routes(string $type): array
    {
        return $this->named["routes {$type}"]
            ??= Columns::texts(StoredRoute::query()->where('record_type', $type)->orderBy('name')->pluck('name'));
    }

    public function route(string $type, string $name): ?array
    {
        return StoredRoute::query()->where('record_type', $type)->firstWhere('name', $name)?->steps;
    }

    public function slips(string $type): array
    {
        return $this->named["slips {$type}"]
            ??= Columns::texts(SlipForm::query()->where('record_type', $type)->orderBy('name')->pluck('name'));
    }

    public function slip(string $type, string $name): ?array
    {
        $version = SlipForm::query()->with('currentVersion')->where('record_type', $type)->firstWhere('name', $name)?->currentVersion;

        return $version === null ? null : ['subject' => $version->subject, 'body' => $version->body, 'asks' => $version->asks];
    }

    public function endpoints(): array
    {
        return $this->named['endpoints'] ??= Columns::texts(Endpoint::query()->orderBy('name')->pluck('name'));
    }

    public function hooks(string $type): array
    {
        return $this->named["hooks {$type}"]
            ??= Columns::texts(Hook::query()->where('record_type', $type)->orderBy('name')->pluck('name'));
    }

    public function ladders(): array
    {
        return Columns::texts(StoredLadder::query()->orderBy('name')->pluck('name'));
    }

    public function ladder(string $name): ?array
    {
        return StoredLadder::query()->firstWhere('name', $name)?->rungs;
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
        $isHandle = preg_match('/^[\x21-\x7E]{1,64}$/', $handle) === 1;
        $row = $isHandle ? Row::rows()->where('handle', $handle)->first(self::COLUMNS) : null;

        return $row === null ? null : $this->people[$row->id] = self::made($row);
    }

    public function peopleAtWork(): array
    {
        return self::all(Row::rows()->where('active', true)->orderBy('name'));
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
        return self::all(Row::rows()->orderBy('id'));
    }

    /** @return list<Person> those of a team who are at work, by id */
    public function team(string $name): array
    {
        return self::all(Row::rows()->where('team', $name)->where('active', true)->where('away', false)->orderBy('id'));
    }

    /** @return list<Person> those who have a role and are at work, by id */
    public function role(string $name): array
    {
        return self::all(Row::rows()->where('role', $name)->where('active', true)->where('away', false)->orderBy('id'));
    }

    public function teams(): array
    {
        return Columns::texts(Row::query()->where('active', true)->distinct()->orderBy('team')->pluck('team'));
    }

    public function namedConditions(string $type): array
    {
        return Columns::texts(StoredCondition::query()->where('record_type', $type)->orderBy('name')->pluck('name'));
    }

    public function namedCondition(string $type, string $name): ?array
    {
        return StoredCondition::query()->where('record_type', $type)->firstWhere('name', $name)?->file;
    }

    public function letters(string $type): array
    {
        return Columns::texts(StoredLetter::query()->where('record_type', $type)->orderBy('name')->pluck('name'));
    }

    public function letter(string $name): ?array
    {
        $letter = StoredLetter::query()->firstWhere('name', $name);
        $version = $letter === null ? null : $letter->versions()->firstWhere('number', $letter->version);

        return $version === null ? null : ['subject' => $version->subject, 'body' => $version->body];
    }

    /** Whether titles of records were told since this was asked last: they change with the records, without anybody counting it. */
    public function hasToldTitles(): bool
    {
        [$told, $this->hasToldTitles] = [$this->hasToldTitles, false];

        return $told;
    }

    public function title(string $type, int $id): ?string
    {
        $this->hasToldTitles = true;
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
        foreach (RecordSql::peopleWithManagers($ids, self::COLUMNS) as $row) {
            $this->people[$row->id] = self::made($row);
            if ($row->m_id !== null) {
                $this->people[$row->m_id] ??= self::made(self::manager($row));
            }
        }
    }

    /** The columns of somebody's manager, as their own. */
    private static function manager(\stdClass $row): \stdClass
    {
        $theirs = new \stdClass;
        foreach (self::COLUMNS as $column) {
            $theirs->{$column} = $row->{"m_{$column}"};
        }

        return $theirs;
    }

    /**
     * What values of several fields are called: a question for all people, and one for the records of each type.
     *
     * @param  iterable<array{Field, array<array-key, mixed>}>  $columns  fields, each with its values
     */
    public function remember(iterable $columns): void
    {
        [$people, $records] = [[], []];
        foreach ($columns as [$field, $values]) {
            $ids = array_filter($values, is_int(...));
            if ($field->type === FieldType::Person) {
                array_push($people, ...$ids);
            } elseif ($field->type === FieldType::Reference) {
                $records[(string) $field->target] = [...($records[(string) $field->target] ?? []), ...$ids];
            }
        }
        $this->rememberPeople($people);
        foreach ($records as $type => $ids) {
            $this->rememberTitles($type, array_values($ids));
        }
    }

    /** @param  list<int>  $ids fetched together, to be answered from memory afterwards */
    public function rememberTitles(string $typeName, array $ids): void
    {
        $type = $this->schemas->schema()->type($typeName);
        $ids = array_values(array_filter(
            array_unique($ids),
            fn (int $id): bool => ! array_key_exists($id, $this->titles[$typeName] ?? []),
        ));
        if ($type === null || $ids === []) {
            return;
        }
        $this->titles[$typeName] = ($this->titles[$typeName] ?? []) + array_fill_keys($ids, null);
        $table = StoredRecord::tableOf($typeName);
        $seen = $this->inSight?->where($type, $table);
        $title = $seen === null ? "`{$type->title}`" : "IF({$seen}, `{$type->title}`, NULL)";
        $rows = StoredRecord::rowsOf($type)->whereIn('id', $ids)->select('id')->selectRaw("{$title} AS title");
        foreach ($rows->get() as $row) {
            $this->titles[$typeName][$row->id] = $row->title ?? $type->numberOf($row->id);
        }
    }

    /** What a record that only a rehearsal made is called, from here on. */
    public function call(string $type, int $id, ?string $title): void
    {
        $this->titles[$type][$id] = $title;
    }

    /** @return list<Person> */
    private static function all(Builder $rows): array
    {
        return array_values($rows->get(self::COLUMNS)->map(self::made(...))->all());
    }

    private static function made(\stdClass $row): Person
    {
        return new Person(
            id: (int) $row->id, handle: $row->handle, name: $row->name,
            managerId: $row->manager_id === null ? null : (int) $row->manager_id, active: (bool) $row->active, team: $row->team,
            email: $row->email, phone: $row->phone, zone: $row->time_zone, role: $row->role, limit: $row->sign_off_limit,
            away: (bool) $row->away,
            deputyId: $row->active && $row->away && $row->stand_in_id !== null ? (int) $row->stand_in_id
            : ($row->deputy_id === null ? null : (int) $row->deputy_id),
            limits: $row->sign_off_limits === null ? [] : array_map(strval(...), (array) json_decode($row->sign_off_limits, true)),
        );
    }
}

<?php

declare(strict_types=1);

namespace App\Store\Types;

use App\Models\Setup\CompanySettings;
use App\Models\Types\RecordTypeDefinition;
use App\Store\Access\AccessEntries;
use App\Store\DomainError;
use App\Store\RefusedFor;
use Illuminate\Database\Connection;
use VividLedger\Explain\Turns;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** Record types and their fields, made and changed while everybody works. What rules name never changes its name. */
final readonly class TypeRepository
{
    private const MOST_TYPES = 100;

    /** At most so many characters, of what records are called. */
    private const WORDS = 40;

    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private FieldUses $uses,
        private AccessEntries $entries,
    ) {
    }

    /**
     * A record type with a title, an owner and room for notes; whatever else it needs is added.
     *
     * @return string its name
     *
     * @throws DomainError
     */
    public function add(string $label, string $plural, int $by): string
    {
        [$label, $plural] = [FieldGiven::words($label, '/label', self::WORDS), FieldGiven::words($plural, '/plural', self::WORDS)];
        $rows = RecordTypeDefinition::query()->get();
        $names = array_values(array_map(static fn (RecordTypeDefinition $row): string => $row->name, $rows->all()));
        if (count($names) >= self::MOST_TYPES) {
            throw DomainError::at('/label', Words::say('At most {types} record types.', types: self::MOST_TYPES), RefusedFor::Conflict);
        }
        foreach ($rows as $row) {
            $there = [mb_strtolower($row->definition['label']), mb_strtolower($row->definition['plural'])];
            if (in_array(mb_strtolower($label), $there, true)) {
                throw DomainError::at('/label', Words::say('There is a record type of that name already.'), RefusedFor::Conflict);
            }
        }
        $name = Slug::of($label, $names);
        $prefixes = array_values(array_map(static fn (RecordTypeDefinition $row): string => $row->definition['prefix'], $rows->all()));
        $this->schemas->add($name, [
            'label' => $label, 'plural' => $plural, 'prefix' => self::prefix($name, $prefixes), 'title' => 'name', 'owner' => 'owner',
            'columns' => ['name', 'owner', 'updated_at'],
            'fields' => [
                'name' => ['label' => 'Name', 'type' => 'text', 'required' => true], 'owner' => ['label' => 'Owner', 'type' => 'person'],
                'notes' => ['label' => 'Notes', 'type' => 'long_text'],
            ],
        ]);
        $this->changed('type_added', $by, ['type' => $name, 'title' => $plural]);

        return $name;
    }

    /**
     * @param  array<string, mixed>  $given  label, plural, fields (names in order), columns; what is not there stays
     *
     * @throws DomainError
     */
    public function change(string $name, int $version, array $given, int $by): void
    {
        $this->held($name, $version, function (array $definition) use ($given): array {
            foreach (['label', 'plural'] as $member) {
                if (array_key_exists($member, $given)) {
                    $definition[$member] = FieldGiven::words($given[$member], "/{$member}", self::WORDS);
                }
            }
            if (isset($given['fields'])) {
                $order = array_flip(array_filter((array) $given['fields'], is_string(...)));
                $place = static fn (string $field): int => $order[$field] ?? 999;
                uksort($definition['fields'], static fn (string $one, string $other): int => $place($one) <=> $place($other));
            }
            if (isset($given['columns'])) {
                $known = [...array_keys($definition['fields']), 'created_at', 'created_by', 'updated_at', 'updated_by'];
                $columns = array_values(array_intersect(array_unique(array_filter((array) $given['columns'], is_string(...))), $known));
                $definition['columns'] = $columns === [] ? throw DomainError::at(
                    '/columns',
                    Words::say('A list shows at least one field.'),
                ) : $columns;
            }

            return $definition;
        }, 'type_changed', $by);
    }

    /**
     * @param  array<string, mixed>  $given
     * @return string the field's name
     *
     * @throws DomainError
     */
    public function addField(string $type, array $given, int $by): string
    {
        $row = $this->row($type);
        $field = FieldGiven::made($given, $this->schemas->schema());
        $names = array_map(strval(...), array_keys($row->definition['fields']));
        if (count($names) >= TypeTable::MOST_FIELDS) {
            throw DomainError::at('/label', Words::say('At most {fields} fields.', fields: TypeTable::MOST_FIELDS), RefusedFor::Conflict);
        }
        self::mustBeFree($row, $field['label'], null);
        // A column that a crash left behind is in nobody's way.
        $name = Slug::of($field['label'], [...$names, ...TypeTable::columns($this->db, $type)]);
        if (isset($field['formula'])) {
            FormulaFill::mustBeSound(self::with($row, $name, $field), $name);
        }
        // The column first, online: until the definition names it, nobody looks at it.
        TypeTable::addColumn($this->db, $type, $name, $field);
        $this->mustBeUnique($type, $name, $field);
        if (isset($field['formula'])) {
            FormulaFill::fill(self::with($row, $name, $field), $name);
        }
        $this->held($type, null, static function (array $definition) use ($name, $field): array {
            $definition['fields'][$name] = $field;

            return $definition;
        }, 'field_added', $by, $name);

        return $name;
    }

    /**
     * @param  array<string, mixed>  $given  what is not there stays
     *
     * @throws DomainError
     */
    public function changeField(string $type, string $name, int $version, array $given, int $by): void
    {
        $before = $this->row($type)->definition['fields'][$name] ?? throw self::noField($name);
        $wanted = FieldGiven::changed($before, $given);
        $reckons = ($before['formula'] ?? null) !== ($wanted['formula'] ?? null);
        if ($reckons) {
            FormulaFill::mustBeSound(self::with($this->row($type), $name, $wanted), $name);
        }
        if (($before['unique'] ?? false) !== ($wanted['unique'] ?? false)) {
            $this->mustBeUnique($type, $name, $wanted);
        }
        $this->held($type, $version, function (array $definition, RecordTypeDefinition $row) use ($name, $given): array {
            $field = $definition['fields'][$name] ?? throw self::noField($name);
            if (isset($given['label']) && is_string($given['label'])) {
                self::mustBeFree($row, $given['label'], $name);
            }
            $definition['fields'][$name] = FieldGiven::changed($field, $given);

            return $definition;
        }, 'field_changed', $by, $name);
        if ($reckons) {
            // Behind the definition, so that whoever saves meanwhile reckons as this does.
            FormulaFill::fill(self::with($this->row($type), $name, $wanted), $name);
        }
    }

    /**
     * A field that is no longer wanted: it is asked for and shown nowhere, its values stay, and it can be brought back.
     *
     * @throws DomainError while rules name it
     */
    public function retire(string $type, string $name, int $by): void
    {
        $definition = $this->row($type)->definition;
        $field = $definition['fields'][$name] ?? throw self::noField($name);
        if (in_array($name, [$definition['title'], $definition['owner']], true)) {
            $message = Words::say('‘{label}’ is what every record is called or belongs to, and stays.', label: $field['label']);
            throw new DomainError('in_use', $message, RefusedFor::Conflict);
        }
        // A list that shows it leaves it out, and a role that says something about it says so for nothing.
        $users = array_filter($this->uses->of($type, $name), static fn (array $use): bool => ! in_array($use[0], ['list', 'role'], true));
        if ($users !== []) {
            $named = array_map(static fn (array $use): string => ($use[0] === 'rule' ? '' : "the {$use[0]} ").$use[1], $users);
            $message = Words::say(
                '‘{label}’ is named by {named}. Change that first.',
                label: $field['label'],
                named: implode(', ', $named),
            );
            throw new DomainError('in_use', $message, RefusedFor::Conflict);
        }
        $this->held($type, null, static function (array $definition) use ($name): array {
            $definition['fields'][$name]['retired'] = true;
            $definition['columns'] = array_values(array_diff($definition['columns'] ?? [], [$name]));

            return $definition;
        }, 'field_retired', $by, $name);
    }

    /** @throws DomainError */
    public function bringBack(string $type, string $name, int $by): void
    {
        $this->held($type, null, static function (array $definition) use ($name): array {
            $definition['fields'][$name] ?? throw self::noField($name);
            unset($definition['fields'][$name]['retired']);

            return $definition;
        }, 'field_back', $by, $name);
    }

    /**
     * What is changed, that it was, and that programs which live long have to learn of it: all of it, or nothing.
     *
     * @param  callable(array<string, mixed>, RecordTypeDefinition): array<string, mixed>  $change
     * @param  ?string  $field  the one it is about; null for the type itself
     */
    private function held(string $name, ?int $version, callable $change, string $kind, int $by, ?string $field = null): void
    {
        $this->db->transaction(function () use ($name, $version, $change, $kind, $by, $field): void {
            $row = RecordTypeDefinition::query()->lockForUpdate()->find($name) ?? throw self::noType($name);
            if ($version !== null && $row->version !== $version) {
                throw new DomainError(
                    'stale_version',
                    Words::say('Somebody changed it after you opened it. Open it again.'),
                    RefusedFor::Conflict,
                );
            }
            $before = $row->definition;
            $definition = $change($before, $row);
            $row->update(['definition' => $definition, 'version' => $row->version + 1]);
            $this->changed($kind, $by, ['type' => $name, 'turns' => self::turns($before, $definition, $field)] + ($field === null
                ? ['title' => $definition['plural']] : ['field' => $field, 'title' => $definition['fields'][$field]['label']]));
        });
        $this->schemas->forget();
    }

    /** @param  array<string, mixed>  $field */
    private static function with(RecordTypeDefinition $row, string $name, array $field): RecordType
    {
        return Definition::read($row->name, ['fields' => [$name => $field] + $row->definition['fields']] + $row->definition);
    }

    /** @param  array<string, mixed>  $field */
    private function mustBeUnique(string $type, string $name, array $field): void
    {
        $doubles = TypeTable::unique($this->db, $type, $name, $field['unique'] ?? false);
        if ($doubles > 0) {
            throw DomainError::at('/unique', Words::counted(
                $doubles,
                'One value stands in more than one record. Make them differ first.'
                    .'|{count} values stand in more than one record. Make them differ first.',
            ), RefusedFor::Conflict);
        }
    }

    /**
     * @param  array<string, mixed>  $before  a definition
     * @param  array<string, mixed>  $after
     * @return list<array{what: string, was: mixed, is: mixed}>
     */
    private static function turns(array $before, array $after, ?string $field): array
    {
        if ($field !== null) {
            return Turns::between($before['fields'][$field] ?? [], $after['fields'][$field] ?? []);
        }
        // Of the fields their order alone is changed here.
        $order = static fn (array $definition): array => ['fields' => array_keys($definition['fields'])] + $definition;

        return Turns::between($order($before), $order($after));
    }

    /** @param  array<string, mixed>  $data */
    private function changed(string $kind, int $by, array $data): void
    {
        CompanySettings::query()->whereKey(CompanySettings::ID)->increment('schema_version');
        // Pages are read anew: what a rule says may have other words now.
        CompanySettings::keptChanged();
        $this->entries->write($kind, $by, $data);
    }

    private function row(string $name): RecordTypeDefinition
    {
        return RecordTypeDefinition::query()->find($name) ?? throw self::noType($name);
    }

    private static function mustBeFree(RecordTypeDefinition $row, string $label, ?string $but): void
    {
        foreach ($row->definition['fields'] as $name => $field) {
            if ($name !== $but && mb_strtolower($field['label']) === mb_strtolower(trim($label))) {
                $message = ($field['retired'] ?? false) ? Words::say('There is a field of that name already. It is retired; bring it back.')
                    : Words::say('There is a field of that name already.');
                throw DomainError::at('/label', $message, RefusedFor::Conflict);
            }
        }
    }

    /** @param  list<string>  $taken */
    private static function prefix(string $name, array $taken): string
    {
        $letters = strtoupper(str_replace(['_', 'a_'], '', $name));
        for ($length = 1; $length <= 4; $length++) {
            $prefix = substr($letters, 0, $length);
            if ($prefix !== '' && ! in_array($prefix, $taken, true)) {
                return $prefix;
            }
        }

        return substr($letters, 0, 2).(count($taken) + 1);
    }

    private static function noType(string $name): DomainError
    {
        return DomainError::missing(Words::say('There is no record type ‘{name}’.', name: $name));
    }

    private static function noField(string $name): DomainError
    {
        return DomainError::missing(Words::say('There is no field ‘{name}’.', name: $name));
    }
}

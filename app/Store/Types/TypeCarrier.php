<?php

declare(strict_types=1);

namespace App\Store\Types;

use App\Models\Setup\CompanySettings;
use App\Models\Types\RecordTypeDefinition;
use App\Store\Access\AccessEntries;
use App\Store\DomainError;
use App\Store\RefusedFor;
use Illuminate\Database\Connection;
use VividLedger\Formula\Formula;
use VividLedger\Formula\FormulaError;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Schema;
use VividLedger\Words\Words;

/** Record types as they come from another company: whole definitions, of which whatever there is not is made. Nothing is taken away. */
final readonly class TypeCarrier
{
    /** What a file cannot change of a field that has values already. */
    private const FIXED = ['type' => 'what it holds', 'target' => 'to which records it leads', 'scale' => 'its places', 'currency' => 'its '
        .'currency'];

    public function __construct(private Connection $db, private SchemaStore $schemas, private AccessEntries $entries)
    {
    }

    /**
     * Tables and columns, made before anything else: as long as no definition names them, nobody looks at them.
     *
     * @param  array<string, mixed>  $definition
     * @return \Closure(): void takes them away again, where the rest comes to nothing
     *
     * @throws \Throwable when they cannot be made; then none of them are
     */
    public function prepare(string $name, array $definition): \Closure
    {
        $isNew = RecordTypeDefinition::query()->find($name) === null;
        $made = [];
        $back = function () use ($name, $isNew, &$made): void {
            $isNew ? TypeTable::drop($this->db, $name) : TypeTable::dropColumns($this->db, $name, ...$made);
        };
        try {
            if ($isNew) {
                TypeTable::create($this->db, Definition::read($name, $definition));
            }
            $there = TypeTable::columns($this->db, $name);
            foreach ($definition['fields'] as $field => $of) {
                if (! in_array($field, $there, true)) {
                    TypeTable::addColumn($this->db, $name, $field, $of);
                    $made[] = $field;
                }
                if (($of['unique'] ?? false) && TypeTable::unique($this->db, $name, $field, true) > 0) {
                    $message = Words::say('{field}: some values stand in more than one record.', field: $of['label']);
                    throw DomainError::at("/fields/{$field}/unique", $message, RefusedFor::Conflict);
                }
            }
        } catch (\Throwable $thrown) {
            $back();
            throw $thrown;
        }

        return $back;
    }

    /**
     * @param  array<string, mixed>  $definition
     *
     * @throws DomainError with the problem at its place in the definition
     */
    public function carry(string $name, array $definition, int $by): void
    {
        $this->db->transaction(function () use ($name, $definition, $by): void {
            $row = RecordTypeDefinition::query()->lockForUpdate()->find($name);
            $merged = self::merged($row?->definition, $definition);
            $this->judge($name, $merged);
            if ($row === null) {
                RecordTypeDefinition::query()->create([
                    'name' => $name, 'position' => RecordTypeDefinition::query()->count(), 'definition' => $merged,
                ]);
            } elseif ($row->definition !== $merged) {
                $row->update(['definition' => $merged, 'version' => $row->version + 1]);
            } else {
                return;
            }
            CompanySettings::query()->whereKey(CompanySettings::ID)->increment('schema_version');
            CompanySettings::keptChanged();
            $this->entries->write($row === null ? 'type_added' : 'type_changed', $by, ['type' => $name, 'title' => $merged['plural']]);
        });
        $this->schemas->forget();
    }

    /**
     * @param  ?array<string, mixed>  $here
     * @param  array<string, mixed>  $there
     * @return array<string, mixed>
     *
     * @throws DomainError
     */
    private static function merged(?array $here, array $there): array
    {
        if ($here === null) {
            return $there;
        }
        $fields = [];
        foreach ($there['fields'] as $name => $field) {
            $known = $here['fields'][$name] ?? null;
            foreach ($known === null ? [] : self::FIXED as $member => $said) {
                if (isset($known[$member]) && ($field[$member] ?? $known[$member]) !== $known[$member]) {
                    throw DomainError::at(
                        "/fields/{$name}/{$member}",
                        Words::say('‘{label}’ is here already, and {said} cannot be changed.', label: $known['label'], said: $said),
                    );
                }
            }
            // What records hold keeps its words: a choice that is not in the file is retired.
            $left = array_diff_key($known['choices'] ?? [], $field['choices'] ?? []);
            $choices = ($field['choices'] ?? []) + array_map(static fn (array $choice): array => ['retired' => true] + $choice, $left);
            $fields[$name] = $choices === [] ? $field : ['choices' => $choices] + $field;
        }

        return ['fields' => $fields + $here['fields']] + $there + $here;
    }

    /** @param  array<string, mixed>  $definition */
    private function judge(string $name, array $definition): void
    {
        if (count($definition['fields']) > TypeTable::MOST_FIELDS) {
            throw DomainError::at('/fields', Words::say('At most {fields} fields.', fields: TypeTable::MOST_FIELDS));
        }
        foreach (['title' => [FieldType::Text], 'owner' => [FieldType::Person]] as $member => $types) {
            $field = $definition['fields'][$definition[$member]] ?? null;
            if ($field === null || ! in_array(FieldType::from($field['type']), $types, true)) {
                throw DomainError::at("/{$member}",
                    $member === 'title' ? Words::say('‘{field}’ is no text field of it.', field: $definition[$member])
                        : Words::say('‘{field}’ is no person field of it.', field: $definition[$member]));
            }
        }
        foreach (RecordTypeDefinition::query()->whereKeyNot($name)->get() as $other) {
            if ($other->definition['prefix'] === $definition['prefix']) {
                throw DomainError::at(
                    '/prefix',
                    Words::say('{plural} have that prefix already.', plural: $other->definition['plural']),
                    RefusedFor::Conflict,
                );
            }
        }
        foreach ($definition['fields'] as $field => $of) {
            if ($of['type'] === FieldType::Reference->value && ($of['target'] ?? '') === '') {
                throw DomainError::at("/fields/{$field}/target", Words::say('Say to which records it leads.'));
            }
            if (isset($of['formula'])) {
                try {
                    Formula::of((string) $of['formula'], new Schema([]), Definition::read($name, $definition), new \DateTimeZone('UTC'));
                } catch (FormulaError $error) {
                    throw DomainError::at("/fields/{$field}/formula", $error->getMessage());
                }
            }
        }
    }

    /** @throws DomainError when a field leads to records of which there is no type */
    public function mustLeadSomewhere(string $name): void
    {
        $type = $this->schemas->schema()->type($name);
        foreach ($type->fields ?? [] as $field) {
            if ($field->type === FieldType::Reference && $this->schemas->schema()->type((string) $field->target) === null) {
                throw DomainError::at(
                    "/fields/{$field->name}/target",
                    Words::say('There is no record type ‘{target}’, here or in the setup.', target: (string) $field->target),
                );
            }
        }
    }
}

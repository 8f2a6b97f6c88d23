<?php

declare(strict_types=1);

namespace App\Store\Import;

use App\Models\Columns;
use App\Models\People\Person;
use App\Models\Records\StoredRecord;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;

/** What the values of many rows refer to, and which values that may stand only once are taken: asked for with one question each. */
final class KnownValues
{
    /**
     * @param  array<string, array<int, true>>  $ids  by field
     * @param  array<string, array<string, int>>  $taken  which record has a value, by field; 0 for one that is still to be made
     */
    private function __construct(private readonly array $ids, private array $taken)
    {
    }

    /** @param  list<array<array-key, mixed>>  $rows  raw values by field name */
    public static function of(Schema $schema, RecordType $type, array $rows): self
    {
        [$ids, $taken] = [[], []];
        foreach ($type->fields as $name => $field) {
            $given = array_column($rows, $name);
            if ($field->type === FieldType::Person && $given !== []) {
                $ids[$name] = array_fill_keys(Columns::ints(Person::rows()->where('active', true)->pluck('id')), true);
            } elseif ($field->type === FieldType::Reference && $given !== []) {
                $target = $schema->type((string) $field->target);
                $asked = array_values(array_unique(array_filter($given, is_numeric(...))));
                $found = $target === null ? [] : Columns::ints(StoredRecord::rowsOf($target)->whereIn('id', $asked)->pluck('id'));
                $ids[$name] = array_fill_keys($found, true);
            }
            if ($field->unique && $given !== []) {
                $asked = array_values(array_filter($given, is_scalar(...)));
                foreach (StoredRecord::rowsOf($type)->whereIn($name, $asked)->pluck('id', $name) as $value => $id) {
                    $taken[$name][mb_strtolower((string) $value)] = (int) $id;
                }
            }
        }

        return new self($ids, $taken);
    }

    public function has(Field $field, int $id): bool
    {
        return isset($this->ids[$field->name][$id]);
    }

    /**
     * Takes a value that may stand only once.
     *
     * @param  ?int  $record  for whom; null for one that is still to be made
     * @return bool false when another has it
     */
    public function takes(string $field, string $value, ?int $record): bool
    {
        $key = mb_strtolower($value);
        $has = $this->taken[$field][$key] ?? null;
        if ($has !== null && ($record === null || $has !== $record)) {
            return false;
        }
        $this->taken[$field][$key] = $record ?? 0;

        return true;
    }
}

<?php

declare(strict_types=1);

namespace App\Store\Import;

use App\Models\Records\StoredRecord;
use App\Store\Records\RowToSave;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use VividLedger\Import\CellReader;
use VividLedger\Import\ColumnGuess;
use VividLedger\Import\Convention;
use VividLedger\Import\Mode;
use VividLedger\Record\InvalidValue;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** Makes rows of a file into records to save, or says at which cell they are none. */
final class ImportRows
{
    private readonly StoredLookup $lookup;

    private readonly CellReader $reader;

    /** @var array<int, Convention> by the place of the column */
    private array $conventions = [];

    /** @var array<string, int> rows by what their record is known by */
    private array $seen = [];

    public function __construct(SchemaStore $schemas, Company $company, private readonly RecordType $type,
        private readonly ImportPlan $plan)
    {
        $this->lookup = new StoredLookup($schemas);
        $this->reader = new CellReader($this->lookup, $company->zone());
        foreach ($plan->conventions as $place => $convention) {
            $this->conventions[$place] = new Convention($convention['monthFirst'], $convention['decimalComma']);
        }
    }

    public function reader(): CellReader
    {
        return $this->reader;
    }

    /**
     * @param  array<int, list<string>>  $rows  cells by the number of the row
     * @return array<int, RowToSave|array<string, string>> by row: the record, or what is wrong by field ("" for the whole row)
     */
    public function read(array $rows): array
    {
        $rows = array_map($this->meant(...), $rows);
        $this->remember($rows);
        $there = $this->there($rows);
        $read = [];
        foreach ($rows as $number => $cells) {
            [$values, $wrong] = $this->values($cells);
            $id = null;
            if ($this->plan->key !== null) {
                $key = mb_strtolower(trim($cells[(int) $this->plan->keyColumn()] ?? ''));
                $id = $there[$key] ?? null;
                $wrong += $this->misfit($key, $id, $number);
            }
            $read[$number] = $wrong === [] ? new RowToSave(is_int($id) ? $id : null, $values) : $wrong;
        }

        return $read;
    }

    /**
     * @param  list<string>  $cells
     * @return list<string> with what cells were said to mean in their place
     */
    private function meant(array $cells): array
    {
        foreach ($this->plan->fields as $place => $name) {
            if (isset($cells[$place])) {
                $cells[$place] = $this->plan->meant($name, $cells[$place]);
            }
        }

        return $cells;
    }

    /**
     * @param  list<string>  $cells
     * @return array{array<string, string|int|bool|null>, array<string, string>}
     */
    private function values(array $cells): array
    {
        [$values, $wrong] = [[], []];
        foreach ($this->plan->fields as $place => $name) {
            $field = $this->type->field($name);
            if ($field === null) {
                continue;
            }
            try {
                $values[$name] = $this->reader->read($field, $cells[$place] ?? '', $this->conventions[$place] ?? new Convention);
            } catch (InvalidValue $invalid) {
                $wrong[$name] = $invalid->getMessage();
            }
        }

        return [$values, $wrong];
    }

    /**
     * @param  int|false|null  $id  the record that is known so; false where several are
     * @return array<string, string> why the row cannot be about it, by field
     */
    private function misfit(string $key, int|false|null $id, int $number): array
    {
        $at = (string) $this->plan->key;
        $mode = $this->plan->mode;
        if ($key !== '' && isset($this->seen[$key])) {
            return [$at => Words::say(
                'Row {seen} is about the same {record}.',
                seen: $this->seen[$key],
                record: Words::within($this->type->label),
            )];
        }
        if ($key !== '') {
            $this->seen[$key] = $number;
        }

        return match (true) {
            $key === '' && $mode !== Mode::Create => [$at => Words::say(
                'It does not say which {record} it is about.',
                record: Words::within($this->type->label),
            )],
            $id === false => [$at => Words::say('More than one {record} has this.', record: Words::within($this->type->label))],
            $id === null && $mode === Mode::Update => [$at => Words::say(
                'There is no such {record} to change.',
                record: Words::within($this->type->label),
            )],
            $id === null && $at === ColumnGuess::NUMBER && $key !== '' => [
                $at => Words::say('There is no such {record}; a new one gets its number here.', record: Words::within($this->type->label)),
            ],
            $id !== null && $mode === Mode::Create => [$at => Words::say(
                'There is such a {record} already.',
                record: Words::within($this->type->label),
            )],
            default => [],
        };
    }

    /**
     * The records that rows are about.
     *
     * @param  array<int, list<string>>  $rows
     * @return array<string, int|false> by what they are known by; false where several are
     */
    private function there(array $rows): array
    {
        $column = $this->plan->keyColumn();
        if ($column === null) {
            return [];
        }
        $keys = array_values(array_filter(array_map(static fn (array $cells): string => trim($cells[$column] ?? ''), $rows)));
        if ($this->plan->key === ColumnGuess::NUMBER) {
            $ids = array_filter(array_combine($keys, array_map($this->type->idOf(...), $keys)));
            $found = StoredRecord::rowsOf($this->type)->whereIn('id', array_values($ids))->pluck('id')->flip()->all();
            $known = array_filter($ids, static fn (int $id): bool => isset($found[$id]));

            return array_combine(array_map(mb_strtolower(...), array_map(strval(...), array_keys($known))), array_values($known));
        }
        $there = [];
        $found = StoredRecord::rowsOf($this->type)->whereIn((string) $this->plan->key, $keys)->select('id', "{$this->plan->key} as known")
            ->get();
        foreach ($found as $row) {
            $key = mb_strtolower((string) $row->known);
            $there[$key] = isset($there[$key]) ? false : (int) $row->id;
        }

        return $there;
    }

    /** @param  array<int, list<string>>  $rows */
    private function remember(array $rows): void
    {
        foreach ($this->plan->fields as $place => $name) {
            $field = $this->type->field($name);
            if ($field?->type === FieldType::Reference) {
                $this->lookup->remember((string) $field->target, array_values(array_map(
                    static fn (array $cells): string => trim($cells[$place] ?? ''), $rows,
                )));
            }
        }
    }
}

<?php

declare(strict_types=1);

namespace App\Store\Records;

use App\Models\Columns;
use App\Models\Records\StoredRecord;
use App\Store\Lists\FoundTexts;
use App\Store\Sql\Batch;
use App\Store\Sql\RecordSql;
use App\Store\Types\Numbers;
use App\Store\Types\SchemaStore;
use App\Store\Types\TypeTable;
use Illuminate\Database\UniqueConstraintViolationException;
use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;

/** Writes records into the tables of their types, many with one statement where they change alike. */
final readonly class RecordWriter
{
    public function __construct(
        private SchemaStore $schemas,
        private Numbers $numbers,
        private FoundTexts $found,
    ) {
    }

    /**
     * @param  list<array{?Record, ?Record}>  $changes  each record as it is kept (null: not yet) and as it is to be (null: deleted)
     * @param  \DateTimeImmutable  $at  when all of it happens
     *
     * @throws Taken when another record has a value that no two may have
     */
    public function write(array $changes, \DateTimeImmutable $at): void
    {
        [$new, $updates, $found] = [[], [], []];
        foreach ($changes as [$before, $after]) {
            $record = $after ?? $before;
            if ($record === null) {
                continue;
            }
            $type = $this->schemas->schema()->types[$record->type];
            $found[] = [$before, $after, $type];
            if ($after === null) {
                StoredRecord::rowsOf($type)->where('id', $record->id)->delete();
            } elseif ($before === null) {
                $new[$type->name][] = ['id' => $after->id, 'version' => $after->version]
                    + $this->columns($type, $this->numbers->in($type, $after)) + self::since($type, null, $after, $at);
            } else {
                $columns = $this->differing($type, $before, $after) + self::since($type, $before, $after, $at);
                // What a rule set back to what it was has its new version all the same: the ledger names it.
                if ($after->version !== $before->version) {
                    $updates[$type->name.' '.implode(' ', array_keys($columns))][] = [$before->version, $after, $columns];
                }
            }
        }
        foreach ($new as $type => $rows) {
            $this->clear($type, static fn () => Batch::insert(StoredRecord::of($type), $rows));
        }
        foreach ($updates as $alike => $rows) {
            $type = explode(' ', $alike)[0];
            $this->clear($type, fn () => $this->update($type, $rows));
        }
        $this->found->write($found);
    }

    /** @param  \Closure(): mixed  $work */
    private function clear(string $type, \Closure $work): void
    {
        try {
            $work();
        } catch (UniqueConstraintViolationException $clash) {
            throw Taken::from($this->schemas->schema()->types[$type], $clash);
        }
    }

    /** @return array<string, string> since when the record is at its stage, where it has come to another */
    private static function since(RecordType $type, ?Record $before, Record $after, \DateTimeImmutable $at): array
    {
        $stage = $type->stage();

        return $stage === null || ($before !== null && $before->value($stage->name) === $after->value($stage->name)) ? []
            : [TypeTable::SINCE => Columns::moment($at)];
    }

    /**
     * @param  non-empty-list<array{int, Record, array<string, string|int|null>}>  $rows  the version each was read in, as it is to
     *     be, and the columns that change, the same for all
     */
    private function update(string $type, array $rows): void
    {
        if (count($rows) === 1) {
            [$was, $after, $columns] = $rows[0];
            RecordSql::change($type, $after->id, $was, $columns + ['version' => $after->version]);
        } else {
            Batch::change(StoredRecord::of($type), array_map(
                static fn (array $row): array => ['id' => $row[1]->id, 'version' => $row[1]->version] + $row[2],
                $rows,
            ));
        }
    }

    /** @return array<string, string|int|null> */
    private function differing(RecordType $type, Record $before, Record $after): array
    {
        $columns = [];
        foreach ($type->fields as $name => $field) {
            $value = $after->values[$name] ?? null;
            if ($value !== ($before->values[$name] ?? null)) {
                $columns[$name] = Columns::column($field, $value);
            }
        }

        return $columns;
    }

    /** @return array<string, string|int|null> */
    private function columns(RecordType $type, Record $record): array
    {
        $columns = [];
        foreach ($type->fields as $name => $field) {
            $columns[$name] = Columns::column($field, $record->values[$name] ?? null);
        }

        return $columns;
    }
}

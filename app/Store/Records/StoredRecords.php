<?php

declare(strict_types=1);

namespace App\Store\Records;

use App\Models\Columns;
use App\Models\Records\StoredRecord;
use App\Store\Sql\Lock;
use App\Store\Sql\LockPlan;
use App\Store\Sql\Matching;
use App\Store\Sql\RecordSql;
use App\Store\Sql\SqlQueryWriter;
use App\Store\Sql\Statements;
use App\Store\Timing\Silence;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Query\Builder;
use VividLedger\Condition\Tree;
use VividLedger\Facts\Children;
use VividLedger\Facts\Quiet;
use VividLedger\Facts\RecordFacts;
use VividLedger\Facts\Total;
use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;

/** Records from the database, none asked for twice. */
final class StoredRecords implements RecordFacts
{
    /** @var array<string, ?Record> */
    private array $records = [];

    /** @var array<string, true> records kept from being changed by others */
    private array $kept = [];

    /** @var array<string, true> record types that were read */
    private array $lookedAt = [];

    /** @var array<string, string|int|bool|null> totals answered before */
    private array $totals = [];

    /** @param  bool  $takes  whether what is read is kept from being changed by others and an id used up; else they are only looked at */
    public function __construct(
        private readonly SchemaStore $schemas,
        private readonly \DateTimeImmutable $at,
        private readonly \DateTimeZone $zone,
        private readonly bool $takes,
    ) {
    }

    /** Whether anything was answered from the records of a type. */
    public function hasLookedAt(string $type): bool
    {
        return isset($this->lookedAt[$type]);
    }

    /** @return list<Record> all that were read */
    public function seen(): array
    {
        return array_values(array_filter($this->records));
    }

    public function record(string $type, int $id): ?Record
    {
        $key = "{$type}:{$id}";
        if (! array_key_exists($key, $this->records)) {
            $this->records[$key] = $this->read($type, $id, $this->takes ? Lock::READ : '');
        }

        return $this->records[$key];
    }

    public function recordToChange(string $type, int $id): ?Record
    {
        $key = "{$type}:{$id}";
        if ($this->takes && ! isset($this->kept[$key])) {
            $this->records[$key] = $this->read($type, $id, Lock::WRITE);
            $this->kept[$key] = true;
        }

        return $this->record($type, $id);
    }

    /** @param  list<int>  $ids  of records that will be asked for, fetched at once */
    public function remember(string $typeName, array $ids): void
    {
        $this->lookedAt[$typeName] = true;
        foreach ($ids as $id) {
            $this->records["{$typeName}:{$id}"] = null;
        }
        $type = $this->schemas->schema()->type($typeName);
        if ($type === null) {
            return;
        }
        foreach (RecordSql::records($type, $ids, $this->takes ? Lock::READ : '') as $id => $record) {
            $this->records["{$typeName}:{$id}"] = $record;
        }
    }

    public function children(Children $children, int $parent, int $most): array
    {
        $this->lookedAt[$children->type] = true;
        $type = $this->schemas->schema()->type($children->type);
        if ($type === null) {
            return [];
        }
        $this->keepParent($type, $children, $parent);
        $rows = Matching::query($type, Tree::where($children), $this->at, $this->zone)->where("t.{$children->by}", $parent)
            ->orderBy('t.id')->limit($most)->when($this->takes, static fn (Builder $query): Builder => $query->lock(Lock::WRITE));

        return array_values($rows->get()->map(function (object $row) use ($type): Record {
            $key = "{$type->name}:{$row->id}";
            if ($this->takes && ! isset($this->kept[$key])) {
                LockPlan::current()->note($type->name, (int) $row->id, Lock::WRITE);
                $this->kept[$key] = true;
                unset($this->records[$key]);
            }

            return $this->records[$key] ??= Columns::record($type, $row);
        })->all());
    }

    public function total(Total $total, int $parent, array $except): ?string
    {
        $this->lookedAt[$total->children->type] = true;
        $type = $this->schemas->schema()->type($total->children->type);
        if ($type !== null) {
            $this->keepParent($type, $total->children, $parent);
        }
        $sql = (new SqlQueryWriter($this->at, $this->zone))->total($total, $parent);
        $text = $except === [] ? $sql->text : substr($sql->text, 0, -1).' AND `t_b1`.id NOT IN ('.implode(', ', $except).'))';
        // Rules that count alike share the answer.
        $key = $text.json_encode($sql->bindings);
        if (! array_key_exists($key, $this->totals)) {
            $value = Statements::value($text, $sql->bindings);
            $this->totals[$key] = $value === null ? null : Columns::value($total->field(), $value);
        }
        $answer = $this->totals[$key];

        return is_string($answer) ? $answer : null;
    }

    public function freshId(string $type): int
    {
        return $this->takes ? Statements::next(StoredRecord::sequenceOf($type)) : 1 + (int) StoredRecord::rowsOf($type)->max('id');
    }

    public function silentSince(Quiet $quiet, string $type, int $id): ?\DateTimeImmutable
    {
        return Silence::since($quiet, $type, $id);
    }

    public function silenceMark(Quiet $quiet, string $type, int $id): ?int
    {
        return Silence::mark($quiet, $type, $id);
    }

    /** Before children are counted: whoever gives the parent one, takes one, or alters one of them, waits until it is written. */
    private function keepParent(RecordType $type, Children $children, int $parent): void
    {
        $target = $this->takes ? $type->field($children->by)?->target : null;
        if ($target !== null) {
            $this->recordToChange($target, $parent);
        }
    }

    private function read(string $typeName, int $id, string $lock): ?Record
    {
        $this->lookedAt[$typeName] = true;
        $type = $this->schemas->schema()->type($typeName);

        return $type === null ? null : RecordSql::record($type, $id, $lock);
    }
}

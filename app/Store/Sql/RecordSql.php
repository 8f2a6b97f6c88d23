<?php

declare(strict_types=1);

namespace App\Store\Sql;

use App\Models\Columns;
use App\Models\LedgerModel;
use App\Models\People\Person;
use App\Models\Records\StoredRecord;
use App\Models\SignOffs\StoredSignOff;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;
use VividLedger\SignOff\Hold;
use VividLedger\SignOff\SignOffStatus;

/**
 * What every save asks for by an id. Each of these statements is one that the query builder could write; but it writes it anew each
 * time, and took longer for that than the database takes to answer.
 */
final class RecordSql
{
    /**
     * One record as the rules see it; null when it is not there.
     *
     * @param  string  $lock  how it is kept from others, as Lock names it; empty for not at all
     */
    public static function record(RecordType $type, int $id, string $lock = ''): ?Record
    {
        $table = StoredRecord::tableOf($type->name);
        if ($lock !== '') {
            LockPlan::current()->note($type->name, $id, $lock);
        }
        $row = DB::selectOne("SELECT * FROM `{$table}` WHERE id = ? {$lock}", [$id]);

        return is_object($row) ? Columns::record($type, $row) : null;
    }

    /**
     * Several records, in one order everywhere, so that two who lock the same wait for each other and never both.
     *
     * @param  list<int>  $ids
     * @param  string  $lock  how they are kept from others, as Lock names it; empty for not at all
     * @return array<int, Record> those that are there, by id
     */
    public static function records(RecordType $type, array $ids, string $lock = ''): array
    {
        $records = [];
        $query = StoredRecord::rowsOf($type)->whereIn('id', $ids)->orderBy('id');
        foreach ($ids === [] ? [] : $query->when($lock !== '', static fn (Builder $rows): Builder => $rows->lock($lock))->get() as $row) {
            $records[(int) $row->id] = Columns::record($type, $row);
            if ($lock !== '') {
                LockPlan::current()->note($type->name, (int) $row->id, $lock);
            }
        }

        return $records;
    }

    /**
     * @param  int  $was  the version it was read in
     * @param  non-empty-array<string, string|int|null>  $columns  what they become, the version among them
     *
     * @throws LostToAnother when that version is gone
     */
    public static function change(string $type, int $id, int $was, array $columns): void
    {
        $set = implode(', ', array_map(static fn (string $column): string => "`{$column}` = ?", array_keys($columns)));
        $table = StoredRecord::tableOf($type);
        $changed = DB::update("UPDATE `{$table}` SET {$set} WHERE id = ? AND version = ?", [...array_values($columns), $id, $was]);
        if ($changed !== 1) {
            throw new LostToAnother("{$type} {$id}");
        }
    }

    /**
     * @param  class-string<LedgerModel>  $of
     * @param  non-empty-list<string>  $columns
     */
    public static function columns(string $of, array $columns, int $id): ?\stdClass
    {
        $row = DB::selectOne('SELECT `'.implode('`, `', $columns)."` FROM `{$of::tableName()}` WHERE id = ?", [$id]);

        return $row instanceof \stdClass ? $row : null;
    }

    /** @param  class-string<LedgerModel>  $of */
    public static function value(string $of, string $column, int $id): mixed
    {
        return DB::scalar("SELECT `{$column}` FROM `{$of::tableName()}` WHERE id = ?", [$id]);
    }

    /** The first sign-off that keeps a record from others now. */
    public static function lock(string $type, int $id): ?\stdClass
    {
        $table = StoredSignOff::tableName();
        $rows = DB::select("SELECT id, rule_id, run_id, started_at, hold FROM `{$table}`
            WHERE record_type = ? AND record_id = ? AND status = ? AND hold <> ? AND released = 0",
            [$type, $id, SignOffStatus::Waiting->value, Hold::Nothing->value]);
        // Where there is more than one, which is rare, they are sorted here: asked to, the database makes a table of none.
        usort($rows, static fn (\stdClass $one, \stdClass $other): int => $one->id <=> $other->id);

        return $rows[0] ?? null;
    }

    /**
     * People and their managers: who asks for the one often asks for the other.
     *
     * @param  non-empty-list<int>  $ids
     * @param  non-empty-list<string>  $columns
     * @return list<\stdClass> each with its manager's columns beside its own, which are called so with "m_" in front
     */
    public static function peopleWithManagers(array $ids, array $columns): array
    {
        $places = implode(', ', array_fill(0, count($ids), '?'));
        $all = implode(', ', array_map(static fn (string $column): string => "p.{$column}, m.{$column} AS m_{$column}", $columns));
        $table = Person::tableName();

        return array_values(DB::select(
            "SELECT {$all} FROM `{$table}` p LEFT JOIN `{$table}` m ON m.id = p.manager_id WHERE p.id IN ({$places})",
            $ids,
        ));
    }
}

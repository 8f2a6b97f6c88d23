<?php

declare(strict_types=1);

namespace App\Store\Sql;

use App\Models\Columns;
use App\Models\LedgerModel;
use App\Models\Person;
use App\Models\StoredRecord;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;

/**
 * What every save asks for by an id. Each of these statements is one that the query builder could write; but it writes it anew each
 * time, and took longer for that than the database takes to answer.
 */
final class ById
{
    /** One record as the rules see it, locked if it is going to be changed; null when it is not there. */
    public static function record(RecordType $type, int $id, bool $lock = false): ?Record
    {
        $table = StoredRecord::tableOf($type->name);
        $row = DB::selectOne("SELECT * FROM `{$table}` WHERE id = ?".($lock ? ' FOR UPDATE' : ''), [$id]);

        return is_object($row) ? Columns::record($type, $row) : null;
    }

    /**
     * Several records, in one order everywhere, so that two who lock the same wait for each other and never both.
     *
     * @param  list<int>  $ids
     * @return array<int, Record> those that are there, by id
     */
    public static function records(RecordType $type, array $ids, bool $lock = false): array
    {
        $records = [];
        $query = StoredRecord::rowsOf($type)->whereIn('id', $ids)->orderBy('id');
        foreach ($ids === [] ? [] : $query->when($lock, static fn (Builder $rows): Builder => $rows->lockForUpdate())->get() as $row) {
            $records[(int) $row->id] = Columns::record($type, $row);
        }

        return $records;
    }

    /** @param  non-empty-array<string, string|int|null>  $columns  what they become */
    public static function change(string $type, int $id, array $columns): void
    {
        $set = implode(', ', array_map(static fn (string $column): string => "`{$column}` = ?", array_keys($columns)));
        DB::update('UPDATE `'.StoredRecord::tableOf($type)."` SET {$set} WHERE id = ?", [...array_values($columns), $id]);
    }

    /** @param  class-string<LedgerModel>  $of */
    public static function value(string $of, string $column, int $id): mixed
    {
        return DB::scalar("SELECT `{$column}` FROM `{$of::tableName()}` WHERE id = ?", [$id]);
    }

    /**
     * People and their managers: who asks for the one often asks for the other.
     *
     * @param  non-empty-list<int>  $ids
     * @param  list<string>  $columns
     * @return list<\stdClass>
     */
    public static function peopleWithManagers(array $ids, array $columns): array
    {
        $places = implode(', ', array_fill(0, count($ids), '?'));
        $own = implode(', ', $columns);
        $theirs = 'm.'.implode(', m.', $columns);
        $table = Person::tableName();

        return array_values(DB::select(
            "SELECT {$own} FROM `{$table}` WHERE id IN ({$places})
            UNION SELECT {$theirs} FROM `{$table}` p JOIN `{$table}` m ON m.id = p.manager_id WHERE p.id IN ({$places})",
            [...$ids, ...$ids],
        ));
    }
}

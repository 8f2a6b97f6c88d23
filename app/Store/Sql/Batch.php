<?php

declare(strict_types=1);

namespace App\Store\Sql;

use App\Models\LedgerModel;
use App\Store\LedgerConnection;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;

/** Inserts many rows with one statement, at the price of writing it: the query builder sorts and copies every row. */
final class Batch
{
    private const ROWS_A_STATEMENT = 500;

    private const MUST_NOT_BE_NULL = 1048;

    /**
     * @param  class-string<LedgerModel>|LedgerModel  $into
     * @param  list<array<string, mixed>>  $rows  all with the same columns
     * @param  list<string>  $update  columns that a row which is there already takes over
     */
    public static function insert(string|LedgerModel $into, array $rows, array $update = []): void
    {
        $end = $update === [] ? '' : ' ON DUPLICATE KEY UPDATE '.implode(', ', array_map(
            static fn (string $name): string => "`{$name}` = VALUES(`{$name}`)",
            $update,
        ));
        foreach (array_chunk($rows, self::ROWS_A_STATEMENT) as $chunk) {
            [$sql, $bindings] = self::statement(is_string($into) ? $into::tableName() : $into->getTable(), $chunk);
            DB::insert($sql.$end, $bindings);
        }
    }

    /**
     * Rows of several tables, none of which waits for what another is given.
     *
     * @param  array<class-string<LedgerModel>, list<array<string, mixed>>>  $rows  by table, all with the same columns
     */
    public static function insertTogether(array $rows): void
    {
        [$statements, $bindings] = [[], []];
        foreach ($rows as $into => $ofOne) {
            if (count($ofOne) > self::ROWS_A_STATEMENT) {
                self::insert($into, $ofOne);
            } elseif ($ofOne !== []) {
                [$statements[], $given] = self::statement($into::tableName(), $ofOne);
                array_push($bindings, ...$given);
            }
        }
        if ($statements !== []) {
            app(LedgerConnection::class)->several($statements, $bindings);
        }
    }

    /**
     * Changes records that were read in the version before; all or none of them.
     *
     * @param  LedgerModel  $in  of a record type
     * @param  non-empty-list<array<string, string|int|null>>  $rows  id, the next version, and what else changes, the same for all
     *
     * @throws LostToAnother when a version that was read is gone
     */
    public static function change(LedgerModel $in, array $rows): void
    {
        $names = array_values(array_diff(array_keys($rows[0]), ['id', 'version']));
        // A version that does not follow the one that is there comes to null, which the column refuses.
        $end = ' ON DUPLICATE KEY UPDATE '.implode(', ', [
            'version = IF(version = VALUES(version) - 1, VALUES(version), NULL)',
            ...array_map(static fn (string $name): string => "`{$name}` = VALUES(`{$name}`)", $names),
        ]);
        foreach (array_chunk($rows, self::ROWS_A_STATEMENT) as $chunk) {
            [$sql, $bindings] = self::statement($in->getTable(), $chunk);
            try {
                $count = DB::affectingStatement($sql.$end, $bindings);
            } catch (QueryException $refused) {
                throw ($refused->errorInfo[1] ?? null) === self::MUST_NOT_BE_NULL ? new LostToAnother($in->getTable()) : $refused;
            }
            // The database counts two for a row that was there, and one for a row that it had to make.
            if ($count !== 2 * count($chunk)) {
                throw new LostToAnother($in->getTable());
            }
        }
    }

    /**
     * @param  class-string<LedgerModel>|LedgerModel  $into
     * @param  list<array<string, mixed>>  $rows  all with the same columns
     * @return list<int> the ids the database gave, in the order of the rows
     */
    public static function insertForIds(string|LedgerModel $into, array $rows): array
    {
        $ids = [];
        foreach (array_chunk($rows, self::ROWS_A_STATEMENT) as $chunk) {
            [$sql, $bindings] = self::statement(is_string($into) ? $into::tableName() : $into->getTable(), $chunk);
            // RETURNING, because in a cluster the ids of one statement need not follow one another.
            foreach (DB::selectFromWriteConnection("{$sql} RETURNING id", $bindings) as $row) {
                $ids[] = (int) $row->id;
            }
        }

        return $ids;
    }

    /**
     * @param  non-empty-list<array<string, mixed>>  $rows
     * @return array{string, list<mixed>}
     */
    private static function statement(string $table, array $rows): array
    {
        $columns = array_keys($rows[0]);
        $places = '('.implode(', ', array_fill(0, count($columns), '?')).')';
        $bindings = [];
        foreach ($rows as $row) {
            foreach ($row as $value) {
                $bindings[] = $value instanceof \BackedEnum ? $value->value : $value;
            }
        }
        $values = implode(', ', array_fill(0, count($rows), $places));

        return ["INSERT INTO `{$table}` (`".implode('`, `', $columns)."`) VALUES {$values}", $bindings];
    }
}

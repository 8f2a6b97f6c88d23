<?php

declare(strict_types=1);

namespace App\Store\Sql;

use App\Models\LedgerModel;
use Illuminate\Support\Facades\DB;

/** Inserts many rows with one statement, at the price of writing it: the query builder sorts and copies every row. */
final class Batch
{
    private const ROWS_A_STATEMENT = 500;

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

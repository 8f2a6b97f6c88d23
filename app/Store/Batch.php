<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;

/** Inserts many rows with one statement. */
final class Batch
{
    private const ROWS_A_STATEMENT = 500;

    /**
     * @param  list<array<string, mixed>>  $rows  all with the same columns
     * @param  string  $end  what stands behind the values
     */
    public static function insert(Connection $db, string $table, array $rows, string $end = ''): void
    {
        foreach (array_chunk($rows, self::ROWS_A_STATEMENT) as $chunk) {
            [$sql, $bindings] = self::statement($table, $chunk);
            $db->insert($sql.$end, $bindings);
        }
    }

    /**
     * @param  list<array<string, mixed>>  $rows  all with the same columns
     * @return list<int> the ids the database gave, in the order of the rows
     */
    public static function insertForIds(Connection $db, string $table, array $rows): array
    {
        $ids = [];
        foreach (array_chunk($rows, self::ROWS_A_STATEMENT) as $chunk) {
            [$sql, $bindings] = self::statement($table, $chunk);
            // RETURNING, because in a cluster the ids of one statement need not follow one another.
            foreach ($db->selectFromWriteConnection("{$sql} RETURNING id", $bindings) as $row) {
                $ids[] = (int) $row->id;
            }
        }

        return $ids;
    }

    /**
     * @param  list<array<string, mixed>>  $rows
     * @return array{string, list<mixed>}
     */
    private static function statement(string $table, array $rows): array
    {
        $columns = array_keys($rows[0]);
        $places = '('.implode(', ', array_fill(0, count($columns), '?')).')';
        $bindings = [];
        foreach ($rows as $row) {
            foreach ($row as $value) {
                $bindings[] = $value;
            }
        }

        return ["INSERT INTO `{$table}` (`".implode('`, `', $columns).'`) VALUES '.implode(', ', array_fill(0, count($rows), $places)), $bindings];
    }
}

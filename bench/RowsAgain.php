<?php

declare(strict_types=1);

namespace Bench;

use Illuminate\Database\Connection;

/** Takes down which rows a piece of work wrote, so that plain PDO can write the same once more: the floor of that work. */
final class RowsAgain
{
    private const TABLES = ['entries', 'field_history', 'guard_keys', 'tasks', 'scheduled_lines', 'comments', 'messages'];

    /** @var array<string, list<array<string, mixed>>> */
    public array $rows = [];

    private int $turn = 0;

    /** @param  list<string>  $records  tables of records that are made */
    public function __construct(private readonly Connection $db, private readonly array $records = [])
    {
    }

    /** @param  callable(): void  $work */
    public function watch(callable $work): void
    {
        $before = array_map(
            fn (string $table): int => (int) $this->db->scalar('SELECT COALESCE(MAX('.$this->mark($table)."), 0) FROM {$table}"),
            array_combine([...self::TABLES, ...$this->records], [...self::TABLES, ...$this->records]),
        );
        $work();
        foreach ([...self::TABLES, ...$this->records] as $table) {
            $mark = $this->mark($table);
            $this->rows[$table] = array_map(
                static fn (object $row): array => (array) $row,
                $this->db->select("SELECT * FROM {$table} WHERE {$mark} > ?", [$before[$table]]),
            );
        }
    }

    public function said(): string
    {
        return implode(
            ', ',
            array_map(
                static fn (string $table, array $rows): string => count($rows)." {$table}",
                array_keys(array_filter($this->rows)),
                array_filter($this->rows),
            ),
        );
    }

    /** Writes them once more, a prepared statement for each row. */
    public function write(\PDO $pdo): void
    {
        static $prepared = [];
        foreach ($this->again() as $table => $rows) {
            foreach ($rows as $row) {
                $statement = $prepared[$table] ??= $pdo->prepare(
                    "INSERT INTO `{$table}` (`".implode('`, `', array_keys($row)).'`) VALUES ('.implode(
                        ', ',
                        array_fill(0, count($row), '?'),
                    ).')',
                );
                $statement->execute(array_values($row));
            }
        }
    }

    /** Writes them once more, so many with one statement. */
    public function writeBatched(\PDO $pdo, int $atOnce): void
    {
        foreach ($this->again() as $table => $rows) {
            foreach (array_chunk($rows, $atOnce) as $chunk) {
                $places = '('.implode(', ', array_fill(0, count($chunk[0]), '?')).')';
                $pdo->prepare(
                    "INSERT INTO `{$table}` (`".implode('`, `', array_keys($chunk[0])).'`) VALUES '.implode(
                        ', ',
                        array_fill(0, count($chunk), $places),
                    ),
                )
                    ->execute(array_merge(...array_map(array_values(...), $chunk)));
            }
        }
    }

    /** @return array<string, list<array<string, mixed>>> the rows with keys of their own */
    private function again(): array
    {
        $this->turn++;
        $again = [];
        foreach (array_filter($this->rows) as $table => $rows) {
            foreach ($rows as $index => $row) {
                unset($row['id'], $row['belongs_to']);
                if (in_array($table, $this->records, true)) {
                    $row['id'] = 1_000_000_000 + $this->turn * 10_000 + $index;
                }
                if ($table === 'guard_keys') {
                    $row['guard_key'] = "again:{$this->turn}:{$index}";
                } elseif ($table === 'messages') {
                    $row['key'] = sha1("{$this->turn}:{$index}:".spl_object_id($this));
                }
                $again[$table][] = $row;
            }
        }

        return $again;
    }

    private function mark(string $table): string
    {
        return $table === 'guard_keys' ? 'entry_id' : 'id';
    }
}

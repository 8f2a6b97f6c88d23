<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\Engine\PencilledLine;
use VividLedger\Engine\Run;
use VividLedger\Engine\TasksOfLine;
use VividLedger\Record\Alteration;

/** Reads runs in play with their pencilled lines. */
final class RunsInPlay
{
    /** @return list<Run> the oldest first */
    public static function of(Connection $db, string $type, int $id): array
    {
        return array_values(self::runs($db, $db->select("SELECT * FROM rule_runs WHERE record_type = ? AND record_id = ? AND status = 'in_play' ORDER BY id", [$type, $id])));
    }

    /**
     * @param  list<int>  $ids
     * @return array<int, Run> by id
     */
    public static function byIds(Connection $db, array $ids): array
    {
        return $ids === [] ? [] : self::runs($db, $db->select('SELECT * FROM rule_runs WHERE id IN ('.implode(', ', $ids).')'));
    }

    public static function tasks(Connection $db, int $run, string $key): ?TasksOfLine
    {
        $row = $db->selectOne("SELECT COUNT(*) AS n, SUM(status = 'open') AS open, MIN(given_at) AS given_at, MAX(due_at) AS due_at, MAX(done_at) AS done_at FROM tasks WHERE run_id = ? AND line_key = ? AND status <> 'cancelled'", [$run, $key]);
        $at = static fn (?string $column): ?\DateTimeImmutable => $column === null ? null : new \DateTimeImmutable("{$column}Z");

        return $row === null || (int) $row->n === 0 ? null
            : new TasksOfLine((int) $row->open, $at($row->given_at) ?? throw new \LogicException('A task was given at some time.'), $at($row->due_at), (int) $row->open === 0 ? $at($row->done_at) : null);
    }

    /**
     * @param  array<object>  $rows
     * @return array<int, Run>
     */
    private static function runs(Connection $db, array $rows): array
    {
        $runs = [];
        foreach ($rows as $row) {
            $made = $row->made === null ? [] : json_decode($row->made, true, 8, JSON_THROW_ON_ERROR);
            $runs[(int) $row->id] = new Run(
                (int) $row->id,
                (int) $row->rule_id,
                (int) $row->page,
                $row->record_type,
                (int) $row->record_id,
                new \DateTimeImmutable("{$row->started_at}Z"),
                $made,
                (int) $row->entry_id,
                $row->began === null ? null : Alteration::read($row->began),
            );
        }
        if ($runs === []) {
            return [];
        }
        foreach ($db->select('SELECT id, run_id, place, turn, due_at FROM scheduled_lines WHERE run_id IN ('.implode(', ', array_keys($runs)).") AND status IN ('pencilled', 'held') ORDER BY due_at IS NULL, due_at, id") as $row) {
            $run = $runs[(int) $row->run_id];
            $run->lines[] = new PencilledLine((int) $row->id, $run, (int) $row->place, (int) $row->turn, $row->due_at === null ? null : new \DateTimeImmutable("{$row->due_at}Z"));
        }

        return $runs;
    }
}

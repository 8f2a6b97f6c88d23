<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\Engine\StruckCode;
use VividLedger\Record\Record;

/**
 * What is pencilled in for a record that is deleted is struck out; brought back, its runs are taken up where they stood. Each is
 * an entry. A line that fell due meanwhile is done, or left out by its own "too late after".
 */
final readonly class RecordRuns
{
    public function __construct(private Connection $db)
    {
    }

    public function strikeOut(Record $record, Actor $actor, \DateTimeImmutable $at, int $cause): void
    {
        $this->each($record, "status IN ('pencilled', 'held')", 'struck', 'the record was deleted', $actor, $at, $cause);
        // What a person or a paused rule held back stays marked, and is held again when it comes back.
        $this->db->update(
            "UPDATE scheduled_lines SET status = 'struck', struck_code = ?, struck_because = 'the record was deleted' WHERE record_type = ? AND record_id = ? AND status IN ('pencilled', 'held')",
            [StruckCode::RecordDeleted->value, $record->type, $record->id],
        );
        $this->db->update(
            "UPDATE rule_runs SET status = 'over' WHERE record_type = ? AND record_id = ? AND status = 'in_play'",
            [$record->type, $record->id],
        );
    }

    public function takeUp(Record $record, Actor $actor, \DateTimeImmutable $at, int $cause): void
    {
        $code = "struck_code = '".StruckCode::RecordDeleted->value."'";
        // A rule that was retired meanwhile goes on nowhere; one that is paused goes on with the rest of it.
        $retired = "EXISTS (SELECT 1 FROM rules r WHERE r.id = scheduled_lines.rule_id AND r.status = 'retired')";
        $paused = "EXISTS (SELECT 1 FROM rules r WHERE r.id = scheduled_lines.rule_id AND r.status = 'paused')";
        $done = "(task_id IS NOT NULL AND NOT EXISTS (SELECT 1 FROM tasks t WHERE t.id = scheduled_lines.task_id AND t.status = 'open'))";
        $which = "status = 'struck' AND {$code} AND NOT {$retired} AND NOT {$done}";
        $this->each($record, $which, 'resumed', 'the record was brought back', $actor, $at, $cause);
        $this->db->update(
            "UPDATE scheduled_lines SET held_code = IF(held_code IS NULL AND {$paused}, 'rule_paused', held_code), status = IF(held_code IS NULL, 'pencilled', 'held'), struck_because = NULL, struck_code = NULL
            WHERE record_type = ? AND record_id = ? AND {$which}",
            [$record->type, $record->id],
        );
        $this->db->update(
            "UPDATE rule_runs SET status = 'in_play' WHERE record_type = ? AND record_id = ? AND status = 'over' AND EXISTS (SELECT 1 FROM scheduled_lines l WHERE l.run_id = rule_runs.id AND l.status IN ('pencilled', 'held'))",
            [$record->type, $record->id],
        );
    }

    /** An entry for each rule whose lines are struck out or come back. */
    private function each(
        Record $record,
        string $which,
        string $kind,
        string $because,
        Actor $actor,
        \DateTimeImmutable $at,
        int $cause,
    ): void {
        $byRule = [];
        foreach ($this->db->select("SELECT rule_id, page, said, due_at FROM scheduled_lines WHERE record_type = ? AND record_id = ? AND task_id IS NULL AND {$which} ORDER BY due_at IS NULL, due_at, id FOR UPDATE", [$record->type, $record->id]) as $row) {
            $byRule["{$row->rule_id} {$row->page}"][] = $row;
        }
        $entries = [];
        foreach ($byRule as $rows) {
            $entries[] = [
                'kind' => $kind, 'at' => Columns::moment($at), 'actor_id' => $actor->personId, 'via' => $actor->via->value, 'record_type' => $record->type, 'record_id' => $record->id, 'version' => $record->version,
                'rule_id' => $rows[0]->rule_id, 'page' => $rows[0]->page, 'cause_id' => $cause,
                'data' => json_encode(
                    [
                        'because' => $because,
                        'lines' => array_map(
                            static fn (object $row): array => ['said' => $row->said, 'due' => Columns::iso($row->due_at)],
                            $rows,
                        ),
                    ],
                    JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE,
                ),
            ];
        }
        if ($entries !== []) {
            Batch::insert($this->db, 'entries', $entries);
        }
    }
}

<?php

declare(strict_types=1);

namespace App\Work;

use App\Store\Batch;
use App\Store\Columns;
use Illuminate\Database\Connection;

/**
 * Puts into ink what fell due. Any number of workers may run: a batch is claimed with SKIP LOCKED and done in the same
 * transaction, so a worker that dies leaves its batch to the next one, and no line is done twice.
 */
final readonly class LineWorker
{
    public function __construct(
        private Connection $db,
        private HouseClock $clock,
    ) {
    }

    /** @return int how many lines were put into ink; fewer than a batch means that nothing more is due */
    public function work(int $batch): int
    {
        return $this->db->transaction(function () use ($batch): int {
            $ids = array_column($this->db->select(
                "SELECT id FROM scheduled_lines WHERE status = 'pencilled' AND due_at <= ? ORDER BY due_at, id LIMIT {$batch} FOR UPDATE SKIP LOCKED",
                [Columns::moment($this->clock->now())],
            ), 'id');
            if ($ids === []) {
                return 0;
            }
            $entries = [];
            foreach ($this->lines($ids) as $line) {
                $entries[] = [
                    'kind' => $line->kind, 'at' => $line->due_at, 'via' => 'rule', 'record_type' => $line->record_type, 'record_id' => $line->record_id,
                    'rule_id' => $line->rule_id, 'task_id' => $line->task_id, 'cause_id' => $line->entry_id,
                    'data' => json_encode(['title' => $line->title, 'person' => $line->assignee], JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
                ];
            }
            Batch::insert($this->db, 'entries', $entries);
            $this->db->table('scheduled_lines')->whereIn('id', $ids)->update(['status' => 'inked']);

            return count($ids);
        }, 3);
    }

    /**
     * @param  list<int>  $ids
     * @return list<object> with the task each line is about
     */
    private function lines(array $ids): array
    {
        $places = implode(', ', array_fill(0, count($ids), '?'));

        return $this->db->select(
            "SELECT l.*, t.title, t.rule_id, p.name AS assignee FROM scheduled_lines l
            JOIN tasks t ON t.id = l.task_id LEFT JOIN people p ON p.id = t.assignee_id WHERE l.id IN ({$places}) ORDER BY l.due_at, l.id",
            $ids,
        );
    }
}

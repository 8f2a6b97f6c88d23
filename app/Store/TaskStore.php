<?php

declare(strict_types=1);

namespace App\Store;

use App\Work\HouseClock;
use Illuminate\Database\Connection;

/** Completing tasks, and taking that back. */
final readonly class TaskStore
{
    public function __construct(
        private Connection $db,
        private HouseClock $clock,
    ) {
    }

    public function complete(int $id, int $by): void
    {
        $this->db->transaction(function () use ($id, $by): void {
            $task = $this->locked($id);
            if ($task->status === 'done') {
                return;
            }
            $now = Columns::moment($this->clock->now());
            $this->db->table('tasks')->where('id', $id)->update(['status' => 'done', 'done_at' => $now, 'done_by' => $by]);
            $this->db->table('scheduled_lines')->where('task_id', $id)->where('status', 'pencilled')->update(['status' => 'struck', 'struck_because' => 'the task was done']);
            $this->entry('task_done', $task, $by, $now);
        });
    }

    public function reopen(int $id, int $by): void
    {
        $this->db->transaction(function () use ($id, $by): void {
            $task = $this->locked($id);
            if ($task->status === 'open') {
                return;
            }
            $now = Columns::moment($this->clock->now());
            $this->db->table('tasks')->where('id', $id)->update(['status' => 'open', 'done_at' => null, 'done_by' => null]);
            $this->db->table('scheduled_lines')->where('task_id', $id)->where('status', 'struck')->update(['status' => 'pencilled', 'struck_because' => null]);
            $this->entry('task_reopened', $task, $by, $now);
        });
    }

    private function locked(int $id): object
    {
        return $this->db->selectOne('SELECT * FROM tasks WHERE id = ? FOR UPDATE', [$id]) ?? throw new Refused('not_found', "There is no task {$id}.", 404);
    }

    private function entry(string $kind, object $task, int $by, string $now): void
    {
        Batch::insert($this->db, 'entries', [[
            'kind' => $kind, 'at' => $now, 'actor_id' => $by, 'record_type' => $task->record_type, 'record_id' => $task->record_id,
            'rule_id' => $task->rule_id, 'task_id' => $task->id, 'cause_id' => $task->entry_id,
            'data' => json_encode(['title' => $task->title], JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
        ]]);
    }
}

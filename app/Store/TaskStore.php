<?php

declare(strict_types=1);

namespace App\Store;

use App\Work\HouseClock;
use Illuminate\Database\Connection;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;

/** Completing tasks, which rules can wait for, and taking that back. */
final readonly class TaskStore
{
    public function __construct(
        private Connection $db,
        private HouseClock $clock,
        private SaveRecord $save,
        private SchemaStore $schemas,
    ) {
    }

    /** @throws Refused when a rule refuses it */
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
            $type = $this->schemas->schema()->type($task->record_type);
            if ($type === null || $this->db->selectOne('SELECT 1 FROM `'.TypeTable::name($type->name).'` WHERE id = ?', [$task->record_id]) === null) {
                // Its record is gone, so there is nothing that rules could be judged on.
                $this->entry('task_done', $task, $by, $now);

                return;
            }
            // A task can be done, opened and done again; each time is an event of its own.
            $event = new Event(EventKind::TaskDone, "task:{$id}:".bin2hex(random_bytes(6)), $task->title);
            $this->save->happen($type, (int) $task->record_id, static fn (): Event => $event, new Actor($by), ['title' => $task->title], $id, (int) $task->entry_id, $task->rule_id === null ? null : (int) $task->rule_id);
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

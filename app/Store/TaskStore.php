<?php

declare(strict_types=1);

namespace App\Store;

use App\Work\HouseClock;
use Illuminate\Database\Connection;
use VividLedger\Engine\Performance;
use VividLedger\Engine\StruckCode;
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
        private StoredRuleBook $rules,
        private Company $company,
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
            if ($task->status === 'cancelled') {
                throw new Refused('wrong_state', "“{$task->title}” was cancelled. Open it again first.", 409);
            }
            $now = Columns::moment($this->clock->now());
            $this->db->table('tasks')->where('id', $id)->update(['status' => 'done', 'done_at' => $now, 'done_by' => $by]);
            $this->db->table('scheduled_lines')->where('task_id', $id)->where('status', 'pencilled')->update([
                'status' => 'struck', 'struck_code' => StruckCode::TaskDone->value, 'struck_because' => 'the task was done',
            ]);
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
            $this->db->table('scheduled_lines')->where('task_id', $id)->where('status', 'struck')->update([
                'status' => 'pencilled', 'struck_code' => null, 'struck_because' => null,
            ]);
            if ($task->run_id !== null) {
                // What was struck out because the task was done comes back with it.
                $this->db->update(
                    "UPDATE scheduled_lines SET status = 'pencilled', struck_code = NULL, struck_because = NULL WHERE run_id = ? AND status = 'struck' AND struck_code = 'task_done'",
                    [$task->run_id],
                );
                $this->db->update("UPDATE rule_runs SET status = 'in_play' WHERE id = ? AND EXISTS (SELECT 1 FROM scheduled_lines l WHERE l.run_id = rule_runs.id AND l.status IN ('pencilled', 'held'))", [$task->run_id]);
            }
            $this->entry('task_reopened', $task, $by, $now);
        });
    }

    /**
     * Gives a task another date, or to another person.
     *
     * @param  array{due?: ?\DateTimeImmutable, assignee?: int}  $given  what is not there stays
     */
    public function change(int $id, array $given, int $by): void
    {
        $this->db->transaction(function () use ($id, $given, $by): void {
            $task = $this->locked($id);
            if ($task->status !== 'open') {
                throw new Refused('wrong_state', "“{$task->title}” ".($task->status === 'done' ? 'is done.' : 'was cancelled.'), 409);
            }
            $set = [];
            $data = ['title' => $task->title];
            if (array_key_exists('due', $given)) {
                $set['due_at'] = $given['due'] === null ? null : Columns::moment($given['due']);
                $data['due'] = [Columns::iso($task->due_at), Columns::iso($set['due_at'])];
            }
            if (isset($given['assignee'])) {
                $set['assignee_id'] = $given['assignee'];
                $names = $this->db->table('people')->whereIn('id', array_filter([$task->assignee_id, $given['assignee']]))->pluck('name', 'id');
                $data['person'] = [$task->assignee_id === null ? null : $names[$task->assignee_id] ?? null, $names[$given['assignee']] ?? throw new Refused('unknown_value', 'There is no such person.', 422)];
            }
            if ($set === [] || array_intersect_assoc($set, (array) $task) === $set) {
                return;
            }
            $this->db->table('tasks')->where('id', $id)->update($set);
            if (array_key_exists('due_at', $set)) {
                $this->dueMoved($task, $set['due_at']);
            }
            Batch::insert($this->db, 'entries', [[
                'kind' => 'task_changed', 'at' => Columns::moment($this->clock->now()), 'actor_id' => $by, 'record_type' => $task->record_type, 'record_id' => $task->record_id,
                'rule_id' => $task->rule_id, 'task_id' => $task->id, 'cause_id' => $task->entry_id, 'data' => json_encode($data, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
            ]]);
        });
    }

    /** The lines that hang on the task's date move with it. */
    private function dueMoved(object $task, ?string $due): void
    {
        $moved = $due === null ? 0 : $this->db->update("UPDATE scheduled_lines SET due_at = ?, status = 'pencilled' WHERE task_id = ? AND kind = 'task_due' AND status IN ('pencilled', 'held')", [$due, $task->id]);
        if ($due === null) {
            $this->db->update(
                "UPDATE scheduled_lines SET status = 'struck', struck_code = 'task_without_date', struck_because = 'the task has no date any more' WHERE task_id = ? AND status IN ('pencilled', 'held')",
                [$task->id],
            );
        } elseif ($moved === 0) {
            Batch::insert($this->db, 'scheduled_lines', [['kind' => 'task_due', 'due_at' => $due, 'record_type' => $task->record_type, 'record_id' => $task->record_id, 'task_id' => $task->id, 'entry_id' => $task->entry_id]]);
        }
        if ($task->run_id === null || $task->line_key === '') {
            return;
        }
        foreach (RunsInPlay::byIds($this->db, [(int) $task->run_id]) as $run) {
            $rule = $this->rules->page($run->rule, $run->page);
            $type = $this->schemas->schema()->types[$run->type];
            $facts = new StoredFacts($this->db, $this->schemas, $this->clock->now(), $this->company->zone());
            $record = $facts->record($run->type, $run->record);
            foreach ($record === null ? [] : $run->lines as $line) {
                $timing = $rule?->line($line->place)?->timing;
                if ($timing?->waitsFor() === $task->line_key) {
                    $at = Performance::occasionOf(
                        $record,
                        $type,
                        $facts,
                        $this->company->zone(),
                        $run->startedAt,
                        $facts->tasksOf($run->id, $task->line_key),
                        $line->turn,
                    )->when($timing);
                    $this->db->update('UPDATE scheduled_lines SET due_at = ? WHERE id = ?', [$at === null ? null : Columns::moment($at), $line->id]);
                }
            }
        }
    }

    private function locked(int $id): object
    {
        $task = $this->db->selectOne('SELECT * FROM tasks WHERE id = ?', [$id]) ?? throw new Refused(
            'not_found',
            "There is no task {$id}.",
            404,
        );
        // The record first, as every save does, so that the two never wait for each other.
        if ($this->schemas->schema()->type($task->record_type) !== null) {
            $this->db->selectOne('SELECT id FROM `'.TypeTable::name($task->record_type).'` WHERE id = ? FOR UPDATE', [$task->record_id]);
        }

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

<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\Engine\Decision;
use VividLedger\Engine\Firing;
use VividLedger\Engine\Stopped;
use VividLedger\Record\Change;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Rule\Line\TaskGiven;
use VividLedger\Rule\Rule;
use VividLedger\Schema\RecordType;

/** Writes what a change came to: entries, field history, guard keys, tasks and what is pencilled in. */
final readonly class LedgerWriter
{
    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private Company $company,
    ) {
    }

    /** @return array{int, array<int, int>} the number of the entry of the save itself, and of each step by its place in the decision */
    public function write(RecordType $type, Change $change, Decision $decision, Actor $actor): array
    {
        $record = $change->record();
        $display = new Display(new PeopleStore($this->db, $this->schemas), $this->company->zone());
        $at = Columns::moment($change->at);
        $about = ['record_type' => $type->name, 'record_id' => $record->id, 'version' => $record->version];
        $changes = $this->changes($type, $change->before, $record, $display);
        [$saved] = Batch::insertForIds($this->db, 'entries', [[
            'kind' => $change->before === null ? 'created' : 'changed', 'at' => $at, 'actor_id' => $actor->personId, 'via' => $actor->via->value, ...$about,
            'data' => $this->json(['changes' => $changes]),
        ]]);
        $history = $this->history($saved, $type, $change->before, $record);
        $numbers = $this->steps($decision, $saved, $at, $actor, $type, $about, $display);
        $guards = [];
        $tasks = [];
        foreach ($decision->steps as $index => $step) {
            if ($step instanceof Firing) {
                $guards[] = ['rule_id' => $step->rule->id, 'record_type' => $type->name, 'record_id' => $record->id, 'guard_key' => $step->guardKey, 'entry_id' => $numbers[$index]];
                array_push($history, ...$this->history($numbers[$index], $type, $step->before, $step->after));
                foreach ($step->performance->tasks as $task) {
                    $tasks[] = $this->task($task, $step->rule, $record, $numbers[$index], $at);
                }
            }
        }
        Batch::insert($this->db, 'guard_keys', $guards);
        Batch::insert($this->db, 'field_history', $history);
        $this->give($tasks);

        return [$saved, $numbers];
    }

    /**
     * One statement for all steps that share the depth of their cause, so that each finds the number of its cause.
     *
     * @param  array<string, mixed>  $about
     * @return array<int, int> entry numbers by place in the decision
     */
    private function steps(Decision $decision, int $saved, string $at, Actor $actor, RecordType $type, array $about, Display $display): array
    {
        $numbers = [];
        $waiting = $decision->steps;
        while ($waiting !== []) {
            $ready = array_filter($waiting, static fn (Firing|Stopped $step): bool => $step->parent === null || isset($numbers[$step->parent]));
            $rows = [];
            foreach ($ready as $step) {
                $rule = $step instanceof Firing ? $step->rule : $step->chain[count($step->chain) - 1];
                $rows[] = [
                    'kind' => $step instanceof Firing ? 'fired' : 'stopped', 'at' => $at, 'actor_id' => $actor->personId, 'via' => 'rule', ...$about,
                    'rule_id' => $rule->id, 'page' => $rule->page, 'cause_id' => $step->parent === null ? $saved : $numbers[$step->parent],
                    'data' => $this->json($step instanceof Firing ? [
                        'why' => $step->why,
                        'did' => $step->performance->outcomes,
                        'changes' => $this->changes($type, $step->before, $step->after, $display),
                    ] : [
                        'chain' => array_map(static fn (Rule $rule): string => $rule->name, $step->chain),
                        'cameRound' => $step->cameRound,
                    ]),
                ];
            }
            $numbers += array_combine(array_keys($ready), Batch::insertForIds($this->db, 'entries', $rows));
            $waiting = array_diff_key($waiting, $ready);
        }

        return $numbers;
    }

    /** @return list<array{field: string, label: string, before: string, after: string}> as a person reads them */
    private function changes(RecordType $type, ?Record $before, Record $after, Display $display): array
    {
        $changes = [];
        foreach ($this->differing($type, $before, $after) as $name) {
            $field = $type->fields[$name];
            $changes[] = ['field' => $name, 'label' => $field->label, 'before' => $display->of($field, $before?->value($name)), 'after' => $display->of($field, $after->value($name))];
        }

        return $changes;
    }

    /** @return list<array<string, mixed>> rows of the field history */
    private function history(int $entry, RecordType $type, ?Record $before, Record $after): array
    {
        $rows = [];
        foreach ($this->differing($type, $before, $after) as $name) {
            $rows[] = [
                'entry_id' => $entry, 'record_type' => $type->name, 'record_id' => $after->id, 'field' => $name,
                'before' => $this->json($before?->value($name)), 'after' => $this->json($after->value($name)),
            ];
        }

        return $rows;
    }

    /** @return list<string> names of the fields, the application's own left out */
    private function differing(RecordType $type, ?Record $before, Record $after): array
    {
        $names = [];
        foreach ($type->fields as $name => $field) {
            $was = $before?->value($name);
            $is = $after->value($name);
            if (! $field->system && $was !== $is && ! ($before === null && $is === false)) {
                $names[] = $name;
            }
        }

        return $names;
    }

    /** @return array<string, mixed> a row of the tasks */
    private function task(TaskGiven $task, Rule $rule, Record $record, int $entry, string $at): array
    {
        return [
            'title' => $task->title, 'record_type' => $record->type, 'record_id' => $record->id, 'assignee_id' => $task->person?->id,
            'rule_id' => $rule->id, 'entry_id' => $entry, 'given_at' => $at, 'due_at' => $task->due === null ? null : Columns::moment($task->due),
        ];
    }

    /** @param  list<array<string, mixed>>  $tasks */
    private function give(array $tasks): void
    {
        if ($tasks === []) {
            return;
        }
        $lines = [];
        foreach (Batch::insertForIds($this->db, 'tasks', $tasks) as $index => $id) {
            $task = $tasks[$index];
            if ($task['due_at'] !== null) {
                $lines[] = [
                    'kind' => 'task_due', 'due_at' => $task['due_at'], 'record_type' => $task['record_type'], 'record_id' => $task['record_id'],
                    'task_id' => $id, 'entry_id' => $task['entry_id'],
                ];
            }
        }
        Batch::insert($this->db, 'scheduled_lines', $lines);
    }

    private function json(mixed $value): string
    {
        return json_encode($value, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES);
    }
}

<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\Engine\Deed;
use VividLedger\Engine\Effect;
use VividLedger\Engine\Firing;
use VividLedger\Engine\LineDone;
use VividLedger\Engine\Postponed;
use VividLedger\Engine\ReadyAgain;
use VividLedger\Engine\Retimed;
use VividLedger\Engine\Run;
use VividLedger\Engine\Step;
use VividLedger\Engine\Stopped;
use VividLedger\Engine\Struck;
use VividLedger\Engine\TooLate;
use VividLedger\Record\Change;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Rule\Line\TaskGiven;
use VividLedger\Rule\Rule;

/** Writes what changes came to: entries, field history, guard keys, tasks, comments, messages and what is pencilled in. */
final readonly class LedgerWriter
{
    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private Company $company,
        private Outbox $outbox,
        private StoredRuleBook $rules,
    ) {
    }

    /**
     * @param  list<Outcome>  $outcomes
     * @return list<array{int, array<int, int>}> for each the number of its own entry, and of each step by its place in the decision
     */
    public function write(array $outcomes): array
    {
        $display = new Display(new PeopleStore($this->db, $this->schemas), $this->company->zone());
        $numbers = $this->entries($outcomes, $display);
        $rest = new LedgerRows;
        foreach ($outcomes as $index => $outcome) {
            [$saved, $steps] = $numbers[$index];
            if ($outcome->change->event === null) {
                $rest->history($this->differing($outcome->change), $saved, $outcome->change);
            }
            foreach ($outcome->decision->steps as $place => $step) {
                $this->step($rest, $step, $steps[$place]);
            }
            foreach ($outcome->decision->turns as $team => $person) {
                $this->db->statement('INSERT INTO team_turns (team, person_id) VALUES (?, ?) ON DUPLICATE KEY UPDATE person_id = VALUES(person_id)', [$team, $person]);
            }
        }
        Batch::insert($this->db, 'guard_keys', $rest->guards);
        Batch::insert($this->db, 'guard_resets', $rest->resets);
        Batch::insert($this->db, 'field_history', $rest->history);
        $runs = $rest->lines->write($this->db);
        $this->give(array_map(static fn (array $task): array => ['run_id' => $task['run_id'] ?? $runs[$task['entry_id']] ?? null] + $task, $rest->tasks));
        Batch::insert($this->db, 'comments', $rest->comments);
        $this->follow($rest->follows);
        $this->outbox->put($rest->messages);

        return $numbers;
    }

    /**
     * One statement for all entries whose cause has its number already, so that each can name the number of its cause.
     *
     * @param  list<Outcome>  $outcomes
     * @return list<array{int, array<int, int>}>
     */
    private function entries(array $outcomes, Display $display): array
    {
        $saved = Batch::insertForIds($this->db, 'entries', array_map(fn (Outcome $outcome): array => $outcome->hasOwnEntry() ? [
            'kind' => $outcome->kind, 'at' => Columns::moment($outcome->change->at), 'actor_id' => $outcome->actor->personId, 'via' => $outcome->actor->via->value,
            ...$this->about($outcome->change->record()), 'rule_id' => $outcome->ruleId, 'page' => null, 'task_id' => $outcome->taskId, 'cause_id' => $outcome->causeId,
            'data' => $this->json($outcome->data + ($outcome->change->event === null ? ['changes' => $this->changes($outcome->change, $display)] : [])),
        ] : $this->row($outcome->decision->steps[0], $outcome->causeId, $outcome, $display), $outcomes));
        $numbers = [];
        $waiting = [];
        foreach ($outcomes as $index => $outcome) {
            $steps = $outcome->decision->steps;
            $numbers[$index] = [$saved[$index], []];
            if (! $outcome->hasOwnEntry()) {
                $numbers[$index][1][0] = $saved[$index];
                unset($steps[0]);
            }
            if ($steps !== []) {
                $waiting[$index] = $steps;
            }
        }
        while ($waiting !== []) {
            $rows = [];
            $places = [];
            foreach ($waiting as $index => $steps) {
                // As far as the causes have their numbers, so that entries are numbered in the order things happened.
                foreach ($steps as $place => $step) {
                    $parent = $step->parent();
                    $cause = $parent === null ? $numbers[$index][0] : ($numbers[$index][1][$parent] ?? null);
                    if ($cause === null) {
                        break;
                    }
                    $rows[] = $this->row($step, $cause, $outcomes[$index], $display);
                    $places[] = [$index, $place];
                    unset($waiting[$index][$place]);
                }
                if ($waiting[$index] === []) {
                    unset($waiting[$index]);
                }
            }
            foreach (Batch::insertForIds($this->db, 'entries', $rows) as $row => $number) {
                [$index, $place] = $places[$row];
                $numbers[$index][1][$place] = $number;
            }
        }

        return $numbers;
    }

    /** @return array<string, mixed> a row of the entries */
    private function row(Step $step, ?int $cause, Outcome $outcome, Display $display): array
    {
        [$kind, $record, $rule, $data] = match (true) {
            $step instanceof Firing => ['fired', $step->performance->record, $step->rule, [
                'why' => $step->why, 'did' => $step->performance->outcomes,
                'changes' => $this->changes(new Change($step->before, $step->after, null, $outcome->change->at), $display),
            ]],
            $step instanceof LineDone => ['line', $step->performance->record, $step->rule, [
                'line' => $step->rule->line($step->line->place)->said ?? '', 'place' => $step->line->place, 'turn' => $step->line->turn, 'due' => $step->line->due?->format('Y-m-d\TH:i:s\Z'),
                'did' => $step->performance->outcomes, 'changes' => $this->changes(new Change($step->before, $step->after, null, $outcome->change->at), $display),
            ]],
            $step instanceof Struck => ['struck', $step->record, $this->rules->page($step->run->rule, $step->run->page), ['because' => $step->because, 'lines' => $this->lines($step->run, $step->lines, $display)]],
            $step instanceof Retimed => ['retimed', $step->record, $this->rules->page($step->run->rule, $step->run->page), ['because' => $step->because, 'lines' => $this->lines($step->run, array_keys($step->lines), $display, $step->lines)]],
            $step instanceof Postponed => ['postponed', $step->record, $this->rules->page($step->line->run->rule, $step->line->run->page), ['because' => $step->because, 'until' => $display->moment($step->until), 'lines' => $this->lines($step->line->run, [$step->line->id], $display)]],
            $step instanceof TooLate => ['too_late', $step->record, $step->rule, ['because' => $step->because, 'lines' => $this->lines($step->line->run, [$step->line->id], $display)]],
            $step instanceof Stopped => ['stopped', $step->record, $step->chain[count($step->chain) - 1], [
                'chain' => array_map(static fn (Rule $rule): string => $rule->name, $step->chain), 'cameRound' => $step->cameRound,
            ]],
            $step instanceof ReadyAgain => ['ready_again', $step->record, $step->rule, []],
            $step instanceof Effect && $step->change->event !== null => ['comment', $step->change->record(), null, ['text' => $step->change->event->text]],
            $step instanceof Effect => [$step->change->before === null ? 'created' : 'changed', $step->change->record(), null, ['changes' => $this->changes($step->change, $display)]],
            default => throw new \LogicException('Not a step of a decision: '.$step::class),
        };

        return [
            'kind' => $kind, 'at' => Columns::moment($outcome->change->at), 'actor_id' => $outcome->actor->personId, 'via' => $kind === 'line' ? $outcome->actor->via->value : 'rule', ...$this->about($record),
            'rule_id' => $rule?->id, 'page' => $rule?->page, 'task_id' => null, 'cause_id' => $cause, 'data' => $this->json($data + ($outcome->hasOwnEntry() || $step->parent() !== null ? [] : $outcome->data)),
        ];
    }

    private function step(LedgerRows $rest, Step $step, int $number): void
    {
        if ($step instanceof Effect && $step->change->event === null) {
            $rest->history($this->differing($step->change), $number, $step->change);
        }
        if ($step instanceof ReadyAgain) {
            $rest->resets[] = ['rule_id' => $step->rule->id, 'record_type' => $step->record->type, 'record_id' => $step->record->id, 'epoch' => $step->epoch, 'entry_id' => $number];
        }
        $rest->lines->add($step, $number);
        if (! $step instanceof Deed) {
            return;
        }
        $at = Columns::moment($step->performance->now);
        $record = $step->before;
        if ($step instanceof Firing) {
            $rest->guards[] = ['rule_id' => $step->rule->id, 'record_type' => $record->type, 'record_id' => $record->id, 'epoch' => $step->epoch, 'guard_key' => $step->guardKey, 'entry_id' => $number, 'at' => $at];
        }
        $change = new Change($step->before, $step->after, null, $step->performance->now);
        $rest->history($this->differing($change), $number, $change);
        foreach ($step->performance->tasks as $task) {
            $rest->tasks[] = $this->task($task, $step->rule, $number, $at) + ['run_id' => $step instanceof LineDone ? $step->line->run->id : null, 'line_key' => $task->key];
        }
        foreach ($step->performance->comments as [$on, $text]) {
            $rest->comments[] = ['record_type' => $on->type, 'record_id' => $on->id, 'text' => $text, 'author_id' => null, 'rule_id' => $step->rule->id, 'at' => $at];
        }
        foreach ($step->performance->messages as $message) {
            $rest->messages[] = [$message, $record, $step->rule->id, $number, $step->performance->now];
        }
        array_push($rest->follows, ...$step->performance->follows);
    }

    /**
     * Lines of a run as an entry keeps them: how they read, and when they were to fall due.
     *
     * @param  ?list<int>  $only  ids; null for all
     * @param  array<int, array{?\DateTimeImmutable, ?\DateTimeImmutable}>  $moved
     * @return list<array<string, ?string>>
     */
    private function lines(Run $run, ?array $only, Display $display, array $moved = []): array
    {
        $rule = $this->rules->page($run->rule, $run->page);
        $lines = [];
        foreach ($run->lines as $line) {
            if ($only === null || in_array($line->id, $only, true)) {
                $to = $moved[$line->id][1] ?? null;
                $lines[] = [
                    'said' => $rule?->line($line->place)->said ?? '', 'due' => $line->due === null ? null : $display->moment($line->due),
                    ...(isset($moved[$line->id]) ? ['to' => $to === null ? null : $display->moment($to)] : []),
                ];
            }
        }

        return $lines;
    }

    /** @return array{record_type: string, record_id: int, version: int} */
    private function about(Record $record): array
    {
        return ['record_type' => $record->type, 'record_id' => $record->id, 'version' => $record->version];
    }

    /** @return list<array{field: string, label: string, before: string, after: string}> as a person reads them */
    private function changes(Change $change, Display $display): array
    {
        $changes = [];
        $type = $this->schemas->schema()->types[$change->record()->type];
        foreach ($this->differing($change) as $name) {
            $field = $type->fields[$name];
            $changes[] = ['field' => $name, 'label' => $field->label, 'before' => $display->of($field, $change->before?->value($name)), 'after' => $display->of($field, $change->after?->value($name))];
        }

        return $changes;
    }

    /** @return list<string> names of the fields, the application's own left out */
    private function differing(Change $change): array
    {
        $names = [];
        foreach ($this->schemas->schema()->types[$change->record()->type]->fields as $name => $field) {
            $was = $change->before?->value($name);
            $is = $change->after?->value($name);
            // An empty tick box is no news of a record that begins or ends.
            if (! $field->system && $was !== $is && ! ($change->before === null && $is === false) && ! ($change->after === null && $was === false)) {
                $names[] = $name;
            }
        }

        return $names;
    }

    /** @return array<string, mixed> a row of the tasks */
    private function task(TaskGiven $task, Rule $rule, int $entry, string $at): array
    {
        return [
            'title' => $task->title, 'notes' => $task->notes, 'priority' => $task->priority->value, 'record_type' => $task->record->type, 'record_id' => $task->record->id,
            'about_type' => $task->about[0] ?? null, 'about_id' => $task->about[1] ?? null, 'assignee_id' => $task->person?->id,
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

    /** @param  list<array{Record, int, bool}>  $follows */
    private function follow(array $follows): void
    {
        foreach ($follows as [$record, $person, $follows]) {
            $this->db->statement($follows
                ? 'INSERT IGNORE INTO followers (record_type, record_id, person_id) VALUES (?, ?, ?)'
                : 'DELETE FROM followers WHERE record_type = ? AND record_id = ? AND person_id = ?', [$record->type, $record->id, $person]);
        }
    }

    private function json(mixed $value): string
    {
        return json_encode($value, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES);
    }
}

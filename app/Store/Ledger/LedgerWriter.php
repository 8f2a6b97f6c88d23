<?php

declare(strict_types=1);

namespace App\Store\Ledger;

use App\Models\Casts\Lines;
use App\Models\Columns;
use App\Models\Ledger\Entry;
use App\Models\People\TeamTurn;
use App\Models\Records\Comment;
use App\Models\Records\FieldChange;
use App\Models\Records\Follower;
use App\Models\Records\HeldChange;
use App\Models\Rules\GuardKey;
use App\Models\Rules\GuardReset;
use App\Models\Tasks\Task;
use App\Models\Timing\LineSort;
use App\Models\Timing\ScheduledLine;
use App\Store\Outbound\Outbox;
use App\Store\Rules\StoredRuleBook;
use App\Store\SignOffs\SignOffNotes;
use App\Store\SignOffs\SignOffRepository;
use App\Store\Slips\SlipPost;
use App\Store\Slips\SlipRepository;
use App\Store\Sql\Batch;
use App\Store\Types\SchemaStore;
use VividLedger\Engine\Effect;
use VividLedger\Engine\ExecutedStep;
use VividLedger\Engine\Firing;
use VividLedger\Engine\HeldBack;
use VividLedger\Engine\Lapsed;
use VividLedger\Engine\LineDone;
use VividLedger\Engine\ReadyAgain;
use VividLedger\Engine\Step;
use VividLedger\Explain\EntrySerializer;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Change;
use VividLedger\Record\Record;
use VividLedger\Rule\Line\TaskGiven;
use VividLedger\Rule\Rule;

/** Writes what changes came to: entries, field history, guard keys, tasks, comments, messages and what is pencilled in. */
final readonly class LedgerWriter
{
    public function __construct(
        private SchemaStore $schemas,
        private Outbox $outbox,
        private StoredRuleBook $rules,
        private SignOffNotes $notes,
        private SignOffRepository $keeper,
        private SlipRepository $slips,
        private SlipPost $post,
    ) {
    }

    /**
     * @param  list<DecisionRecord>  $outcomes
     * @return array<int, array{int, array<int, int>}> for each the number of its own entry, and of each step by its place in the decision
     */
    public function write(array $outcomes): array
    {
        $numbers = $this->entries($outcomes, new EntrySerializer($this->schemas->schema(), $this->rules));
        $rest = new LedgerRows;
        foreach ($outcomes as $index => $outcome) {
            [$saved, $steps] = $numbers[$index];
            if ($outcome->change->event === null && $outcome->change->againFor === null) {
                $rest->history(EntrySerializer::differing($outcome->change, $this->schemas->schema()), $saved, $outcome->change);
            }
            foreach ($outcome->decision->steps as $place => $step) {
                $this->step($rest, $step, $steps[$place]);
            }
            foreach ($outcome->decision->turns as $team => $person) {
                TeamTurn::rows()->upsert(['team' => $team, 'person_id' => $person], ['team'], ['person_id']);
            }
        }
        Batch::insertTogether([
            GuardKey::class => $rest->guards, GuardReset::class => $rest->resets, FieldChange::class => $rest->history,
            HeldChange::class => $rest->held,
        ]);
        foreach ($rest->lapsed as $because => $tasks) {
            Task::lapse($tasks, $because, $outcomes[0]->change->at);
        }
        $runs = $rest->lines->write();
        [$asked, $struck] = $rest->signOffs->past();
        if ($asked !== [] || $struck !== []) {
            $this->keeper->withdraw($asked, $struck);
        }
        $this->notes->begun($rest->signOffs->write($runs));
        [$sent, $struck] = $rest->slips->past();
        if ($sent !== [] || $struck !== []) {
            $this->slips->withdraw($sent, $struck);
        }
        $this->post->begun($rest->slips->write($runs));
        $rest->calls->write($runs);
        $lines = $this->give(array_map(
            static fn (array $task): array => ['run_id' => $task['run_id'] ?? $runs[$task['entry_id']] ?? null] + $task,
            $rest->tasks,
        ));
        Batch::insertTogether([ScheduledLine::class => $lines, Comment::class => $rest->comments]);
        $this->follow($rest->follows);
        $this->outbox->put($rest->messages);

        return $numbers;
    }

    /**
     * One statement for all entries whose cause has its number already, so that each can name the number of its cause.
     *
     * @param  list<DecisionRecord>  $outcomes
     * @return array<int, array{int, array<int, int>}>
     */
    private function entries(array $outcomes, EntrySerializer $teller): array
    {
        $saved = Batch::insertForIds(Entry::class, array_map(
            fn (DecisionRecord $outcome): array => $outcome->hasOwnEntry()
                ? $this->own($outcome) : $this->row($outcome->decision->steps[0], $outcome->causeId, $outcome, $teller),
            $outcomes,
        ));
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
                    $rows[] = $this->row($step, $cause, $outcomes[$index], $teller);
                    $places[] = [$index, $place];
                    unset($waiting[$index][$place]);
                }
                if ($waiting[$index] === []) {
                    unset($waiting[$index]);
                }
            }
            foreach (Batch::insertForIds(Entry::class, $rows) as $row => $number) {
                [$index, $place] = $places[$row];
                [$own, $ofSteps] = $numbers[$index];
                $numbers[$index] = [$own, [$place => $number] + $ofSteps];
            }
        }

        return $numbers;
    }

    /** @return array<string, mixed> the entry of the change itself */
    private function own(DecisionRecord $outcome): array
    {
        return Entry::row($outcome->kind, $outcome->change->at, $outcome->data, [
            ...$this->about($outcome->change->record()), 'actor_id' => $outcome->actor->personId, 'via' => $outcome->actor->via,
            'rule_id' => $outcome->ruleId, 'task_id' => $outcome->taskId, 'cause_id' => $outcome->causeId,
        ]);
    }

    /** @return array<string, mixed> a row of the entries */
    private function row(Step $step, ?int $cause, DecisionRecord $outcome, EntrySerializer $teller): array
    {
        $told = $teller->step($step);

        $data = $told->data + ($outcome->hasOwnEntry() || $step->parent() !== null ? [] : $outcome->data);

        return Entry::row($told->kind, $outcome->change->at, $data, [
            ...$this->about($told->record), 'actor_id' => $outcome->actor->personId,
            'via' => $told->kind === 'line' ? $outcome->actor->via : CauseKind::Rule,
            'rule_id' => $told->rule?->id, 'page' => $told->rule?->page, 'cause_id' => $cause,
        ]);
    }

    private function step(LedgerRows $rest, Step $step, int $number): void
    {
        if ($step instanceof Effect && $step->change->event === null) {
            $rest->history(EntrySerializer::differing($step->change, $this->schemas->schema()), $number, $step->change);
        }
        $rest->signOffs->struck($step);
        $rest->slips->struck($step);
        if ($step instanceof HeldBack) {
            $rest->held($step);
        }
        if ($step instanceof ReadyAgain) {
            $rest->resets[] = [
                'rule_id' => $step->rule->id, 'record_type' => $step->record->type, 'record_id' => $step->record->id,
                'epoch' => $step->epoch, 'entry_id' => $number,
            ];
        }
        $rest->lines->add($step, $number);
        if ($step instanceof Lapsed) {
            $rest->lapsed[$step->because][] = $step->task->id;
        }
        if (! $step instanceof ExecutedStep) {
            return;
        }
        $at = Columns::moment($step->performance->now);
        $record = $step->before;
        if ($step instanceof Firing) {
            $rest->guards[] = [
                'rule_id' => $step->rule->id, 'record_type' => $record->type, 'record_id' => $record->id, 'epoch' => $step->epoch,
                'guard_key' => $step->guardKey, 'entry_id' => $number, 'at' => $at,
            ];
        }
        $change = new Change($step->before, $step->after, null, $step->performance->now);
        $rest->history(EntrySerializer::differing($change, $this->schemas->schema()), $number, $change);
        foreach ($step->performance->tasks as $task) {
            $run = $step instanceof LineDone ? $step->line->run->id : null;
            $rest->tasks[] = $this->task($task, $step->rule, $number, $at) + ['run_id' => $run, 'line_key' => $task->key];
        }
        foreach ($step->performance->comments as [$on, $text, $tells]) {
            $rest->comments[] = [
                'record_type' => $on->type, 'record_id' => $on->id, 'text' => $text, 'author_id' => null, 'rule_id' => $step->rule->id,
                'at' => $at, 'tells' => Lines::text($tells),
            ];
        }
        foreach ($step->performance->messages as $message) {
            $rest->messages[] = [$message, $record, $step->rule->id, $number, $step->performance->now];
        }
        array_push($rest->follows, ...$step->performance->follows);
        $rest->signOffs->add($step, $number);
        $rest->slips->add($step, $number);
        $rest->calls->add($step, $number);
    }

    /** @return array{record_type: string, record_id: int, version: int} */
    private function about(Record $record): array
    {
        return ['record_type' => $record->type, 'record_id' => $record->id, 'version' => $record->version];
    }

    /** @return array<string, mixed> a row of the tasks */
    private function task(TaskGiven $task, Rule $rule, int $entry, string $at): array
    {
        return [
            'title' => $task->title, 'notes' => $task->notes, 'priority' => $task->priority, 'record_type' => $task->record->type,
            'record_id' => $task->record->id, 'about_type' => $task->about[0] ?? null, 'about_id' => $task->about[1] ?? null,
            'assignee_id' => $task->person?->id,
            'tells' => Lines::text($task->tells),
            'page' => $task->lapses ? $rule->page : null, 'place' => $task->lapses ? $task->place : null,
            'rule_id' => $rule->id, 'entry_id' => $entry, 'given_at' => $at, 'due_at' => $task->due === null ? null
                : Columns::moment($task->due),
        ];
    }

    /**
     * @param  list<array<string, mixed>>  $tasks
     * @return list<array<string, mixed>> what is pencilled in for them
     */
    private function give(array $tasks): array
    {
        $lines = [];
        foreach (Batch::insertForIds(Task::class, $tasks) as $index => $id) {
            $task = $tasks[$index];
            if ($task['due_at'] !== null) {
                $lines[] = [
                    'sort' => LineSort::Task, 'kind' => 'task_due', 'due_at' => $task['due_at'], 'record_type' => $task['record_type'],
                    'record_id' => $task['record_id'],
                    'task_id' => $id, 'entry_id' => $task['entry_id'],
                ];
            }
        }

        return $lines;
    }

    /** @param  list<array{Record, int, bool}>  $follows */
    private function follow(array $follows): void
    {
        foreach ($follows as [$record, $person, $follows]) {
            Follower::set($record->type, $record->id, $person, $follows);
        }
    }
}

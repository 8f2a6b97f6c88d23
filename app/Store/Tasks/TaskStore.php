<?php

declare(strict_types=1);

namespace App\Store\Tasks;

use App\Models\Columns;
use App\Models\Ledger\Entry;
use App\Models\People\Person;
use App\Models\Records\StoredRecord;
use App\Models\SignOffs\SignOffSeat;
use App\Models\Tasks\Task;
use App\Models\Tasks\TaskStatus;
use App\Models\Timing\LineSort;
use App\Models\Timing\LineStatus;
use App\Models\Timing\RuleRun;
use App\Models\Timing\ScheduledLine;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\Records\SaveRecord;
use App\Store\Records\StoredFacts;
use App\Store\RefusedFor;
use App\Store\Rules\StoredRuleBook;
use App\Store\Setup\Company;
use App\Store\Sql\Batch;
use App\Store\Timing\RunsInPlay;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Connection;
use VividLedger\Engine\StruckCode;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Record\Value;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\RecordType;
use VividLedger\SignOff\SeatState;
use VividLedger\Words\Words;

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

    /**
     * A task that somebody gives, themselves or another.
     *
     * @param  array{title: string, notes: string, priority: string, due: ?\DateTimeImmutable, assignee: int}  $given
     * @return int its id
     *
     * @throws DomainError
     */
    public function give(RecordType $type, int $record, array $given, int $by): int
    {
        return $this->db->transaction(function () use ($type, $record, $given, $by): int {
            if (! StoredRecord::rowsOf($type)->where('id', $record)->lockForUpdate()->exists()) {
                throw DomainError::noRecord($type, $record);
            }
            $person = Person::query()->where('active', true)->find($given['assignee'])
                ?? throw new DomainError('unknown_value', Words::say('There is no such person at work here.'), RefusedFor::Invalid);
            $now = $this->clock->now();
            $iso = $given['due'] === null ? '' : Value::instantText($given['due']);
            [$entry] = Batch::insertForIds(Entry::class, [Entry::row('task_given', $now, [
                'title' => $given['title'], 'person' => $person->id, 'due' => $iso,
            ], ['actor_id' => $by, 'record_type' => $type->name, 'record_id' => $record])]);
            $task = Task::query()->create([
                'title' => $given['title'], 'notes' => $given['notes'], 'priority' => $given['priority'], 'record_type' => $type->name,
                'record_id' => $record, 'assignee_id' => $person->id, 'entry_id' => $entry, 'given_at' => $now, 'due_at' => $given['due'],
                'status' => TaskStatus::Open, 'line_key' => '', 'about_type' => $type->name, 'about_id' => $record,
            ]);
            if ($given['due'] !== null) {
                $this->dueMoved($task);
            }

            return $task->id;
        });
    }

    /**
     * @param  string  $outcome  what came of it
     *
     * @throws DomainError when a rule refuses it
     */
    public function complete(int $id, int $by, string $outcome = ''): void
    {
        $this->db->transaction(function () use ($id, $by, $outcome): void {
            $task = $this->locked($id);
            if ($task->status === TaskStatus::Done) {
                return;
            }
            if ($task->status->isGone()) {
                throw new DomainError(
                    'wrong_state',
                    Words::say('“{task}” {status} Open it again first.', task: $task->title, status: $task->status->said()),
                    RefusedFor::Conflict,
                );
            }
            if (SignOffSeat::query()->where('task_id', $id)->where('state', SeatState::Waiting)->exists()) {
                throw new DomainError('wrong_state', Words::say('It is done by saying yes or no, under Sign-offs.'), RefusedFor::Conflict);
            }
            $task->update(['status' => TaskStatus::Done, 'done_at' => $this->clock->now(), 'done_by' => $by, 'outcome' => $outcome]);
            ScheduledLine::rows()->where('task_id', $id)->where('status', LineStatus::Pencilled)
                ->update(ScheduledLine::struck(StruckCode::TaskDone, 'the task was done'));
            $type = $this->schemas->schema()->type($task->record_type);
            if ($type === null || ! StoredRecord::rowsOf($type)->where('id', $task->record_id)->exists()) {
                // Its record is gone, so there is nothing that rules could be judged on.
                $this->entry('task_done', $task, self::named($task) + ['outcome' => $outcome], $by);

                return;
            }
            // A task can be done, opened and done again; each time is an event of its own.
            $event = new Event(EventKind::TaskDone, "task:{$id}:".bin2hex(random_bytes(6)), $task->title, tells: $task->tells);
            $data = self::named($task) + ['outcome' => $outcome];
            $this->save->recordEvent(
                $type,
                $task->record_id,
                static fn (): Event => $event,
                new Actor($by),
                $data,
                $id,
                $task->entry_id,
                $task->rule_id,
            );
        });
    }

    public function reopen(int $id, int $by): void
    {
        $this->db->transaction(function () use ($id, $by): void {
            $task = $this->locked($id);
            if ($task->status === TaskStatus::Open) {
                return;
            }
            // Whoever opens one that has lapsed wants it done all the same.
            $kept = $task->status === TaskStatus::Lapsed ? ['outcome' => '', 'page' => null, 'place' => null] : [];
            $task->update(['status' => TaskStatus::Open, 'done_at' => null, 'done_by' => null] + $kept);
            $back = ['status' => LineStatus::Pencilled, 'struck_code' => null, 'struck_because' => null];
            ScheduledLine::rows()->where('task_id', $id)->where('status', LineStatus::Struck)->update($back);
            if ($task->run_id !== null) {
                // What was struck out because the task was done comes back with it.
                ScheduledLine::rows()->where('run_id', $task->run_id)->where('status', LineStatus::Struck)
                    ->where('struck_code', StruckCode::TaskDone)->update($back);
                RuleRun::takeUp(RuleRun::query()->where('id', $task->run_id));
            }
            $this->entry('task_reopened', $task, self::named($task), $by);
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
            if ($task->status !== TaskStatus::Open) {
                throw new DomainError(
                    'wrong_state',
                    Words::quoted($task->title)." {$task->status->said()}",
                    RefusedFor::Conflict,
                );
            }
            $data = self::named($task);
            $iso = static fn (?\DateTimeImmutable $at): ?string => $at === null ? null : Value::instantText($at);
            if (array_key_exists('due', $given)) {
                $data['due'] = [$iso($task->due_at), $iso($given['due'])];
                $task->due_at = $given['due'];
            }
            if (isset($given['assignee'])) {
                if (! Person::query()->whereKey($given['assignee'])->exists()) {
                    throw new DomainError('unknown_value', Words::say('There is no such person.'), RefusedFor::Invalid);
                }
                $data['person'] = [$task->assignee_id, $given['assignee']];
                $task->assignee_id = $given['assignee'];
            }
            if (! $task->isDirty()) {
                return;
            }
            $task->save();
            if ($task->wasChanged('due_at')) {
                $this->dueMoved($task);
            }
            $this->entry('task_changed', $task, $data, $by);
        });
    }

    /** The lines that hang on the task's date move with it. */
    private function dueMoved(Task $task): void
    {
        $lines = ScheduledLine::toComeRows()->where('task_id', $task->id);
        if ($task->due_at === null) {
            $lines->update(ScheduledLine::struck(StruckCode::TaskWithoutDate, 'the task has no date any more'));
        } elseif ($lines->where('kind',
            'task_due')->update(['due_at' => Columns::moment($task->due_at), 'status' => LineStatus::Pencilled]) === 0) {
            ScheduledLine::query()->create([
                'sort' => LineSort::Task, 'kind' => 'task_due', 'due_at' => $task->due_at, 'record_type' => $task->record_type,
                'record_id' => $task->record_id,
                'task_id' => $task->id, 'entry_id' => $task->entry_id,
            ]);
        }
        if ($task->run_id === null || $task->line_key === '') {
            return;
        }
        foreach (RunsInPlay::byIds([$task->run_id]) as $run) {
            $rule = $this->rules->page($run->rule, $run->page);
            $type = $this->schemas->schema()->types[$run->type];
            $facts = new StoredFacts($this->schemas, $this->clock->now(), $this->company->zone());
            $record = $facts->record($run->type, $run->record);
            if ($record === null) {
                continue;
            }
            foreach ($run->lines as $line) {
                $timing = $rule?->line($line->place)?->timing;
                if ($timing?->waitsFor() === $task->line_key) {
                    $at = ActionContext::occasionOf(
                        record: $record, type: $type, facts: $facts, zone: $this->company->zone(),
                        started: $line->countedFrom(),
                        tasks: $facts->tasksOf($run->id, $task->line_key), turn: $line->turn,
                    )->when($timing);
                    ScheduledLine::rows()->where('id', $line->id)->update(['due_at' => $at === null ? null : Columns::moment($at)]);
                }
            }
        }
    }

    private function locked(int $id): Task
    {
        $missing = static fn (): DomainError => DomainError::missing(Words::say('There is no task {id}.', id: $id));
        $task = Task::query()->find($id) ?? throw $missing();
        // The record first, as every save does, so that the two never wait for each other.
        if ($this->schemas->schema()->type($task->record_type) !== null) {
            StoredRecord::rowsOf($task->record_type)->where('id', $task->record_id)->lockForUpdate()->first(['id']);
        }

        return Task::query()->lockForUpdate()->find($id) ?? throw $missing();
    }

    /** @return array{title: string, tells?: list<string>} the task as an entry names it */
    private static function named(Task $task): array
    {
        return ['title' => $task->title] + ($task->tells === [] ? [] : ['tells' => $task->tells]);
    }

    /** @param  array<string, mixed>  $data */
    private function entry(string $kind, Task $task, array $data, int $by): void
    {
        Batch::insert(Entry::class, [Entry::row($kind, $this->clock->now(), $data, [
            'actor_id' => $by, 'record_type' => $task->record_type, 'record_id' => $task->record_id,
            'rule_id' => $task->rule_id, 'task_id' => $task->id, 'cause_id' => $task->entry_id,
        ])]);
    }
}

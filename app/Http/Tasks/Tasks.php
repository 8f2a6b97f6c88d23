<?php

declare(strict_types=1);

namespace App\Http\Tasks;

use App\Models\Columns;
use App\Models\Tasks\Task;
use App\Models\Tasks\TaskStatus;
use App\Store\Access\AccessScope;
use App\Store\Access\SeenTexts;
use App\Store\People\PeopleStore;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;
use VividLedger\Record\Value;

/** Reads tasks, with the names of all they mention: those of a person, by id, of a team, by name, or of everybody. */
final readonly class Tasks
{
    public function __construct(
        private SchemaStore $schemas,
        private PeopleStore $names,
        private AccessScope $inSight,
        private SeenTexts $texts,
    ) {
    }

    /** @return list<TaskResource> open ones by due date, those without one last; done ones the latest first */
    public function listed(TaskStatus $status, int|string|null $person, int $limit): array
    {
        $tasks = $this->of($status, $person)->limit($limit);
        if ($status !== TaskStatus::Open) {
            return $this->read($tasks->latest('done_at')->latest('id'));
        }
        $dated = $this->read((clone $tasks)->whereNotNull('due_at')->orderBy('due_at')->orderBy('id'));

        return [...$dated, ...$this->read($tasks->whereNull('due_at')->orderBy('id')->limit($limit - count($dated)))];
    }

    public function count(?TaskStatus $status, int|string|null $person): int
    {
        return $this->of($status, $person)->count();
    }

    /** @return array{int, int} how many open ones are late, and how many more fall due before a moment */
    public function pressing(int|string|null $person, \DateTimeImmutable $now, \DateTimeImmutable $until): array
    {
        $due = fn (): Builder => $this->of(TaskStatus::Open, $person);

        return [
            $due()->where('due_at', '<', Columns::moment($now))->count(),
            $due()->where('due_at', '>=', Columns::moment($now))->where('due_at', '<', Columns::moment($until))->count(),
        ];
    }

    /**
     * @param  list<int>  $people
     * @return list<TaskResource> open tasks of theirs that are late, the latest first
     */
    public function late(array $people, \DateTimeImmutable $now, int $limit): array
    {
        return $this->read(Task::query()->where('status', TaskStatus::Open)->whereIn('assignee_id', $people)->where($this->seen(...))
            ->where('due_at', '<', Columns::moment($now))->orderBy('due_at')->orderBy('id')->limit($limit));
    }

    /**
     * Tasks in the order of their ids, for whoever wants all of them.
     *
     * @param  ?int  $before  only those with a lower id, the highest first
     * @param  ?int  $after  only those with a higher id, the lowest first
     * @return list<TaskResource>
     */
    public function inOrder(?TaskStatus $status, int|string|null $person, ?int $before, ?int $after, int $limit): array
    {
        return $this->read($this->of($status, $person)->limit($limit)
            ->when($before !== null, static fn (Builder $tasks): Builder => $tasks->where('id', '<', $before))
            ->when($after !== null, static fn (Builder $tasks): Builder => $tasks->where('id', '>', $after))
            ->orderBy('id', $after === null ? 'desc' : 'asc'));
    }

    /** @return list<TaskResource> those about a record, open ones first */
    public function ofRecord(string $type, int $id, int $limit): array
    {
        $tasks = $this->read(Task::query()->about($type, $id)->where($this->seen(...))->orderBy('due_at')->orderBy('id')->limit($limit));
        $rank = static fn (TaskResource $task): array => [$task->status === TaskStatus::Done->value, $task->dueAt === null];
        usort($tasks, static fn (TaskResource $one, TaskResource $other): int => $rank($one) <=> $rank($other));

        return $tasks;
    }

    public function one(int $id): ?TaskResource
    {
        return $this->read(Task::query()->whereKey($id)->where($this->seen(...)))[0] ?? null;
    }

    /**
     * One's own tasks are there, whatever they are about.
     *
     * @param  Builder<Task>  $tasks
     */
    public function seen(Builder $tasks): void
    {
        if (! $this->inSight->isEverything()) {
            $tasks->where('assignee_id', $this->inSight->sight()->person)->orWhere($this->inSight->about(...));
        }
    }

    /** @return Builder<Task> */
    private function of(?TaskStatus $status, int|string|null $person): Builder
    {
        return Task::query()->when($status !== null, static fn (Builder $tasks): Builder => $tasks->where('status', $status))
            ->when(is_int($person), static fn (Builder $tasks): Builder => $tasks->where('assignee_id', $person))
            ->when(is_string($person), static fn (Builder $tasks): Builder => $tasks->whereHas('assignee',
                static fn (Builder $people): Builder => $people->where('team', $person)))
            ->where($this->seen(...));
    }

    /**
     * @param  Builder<Task>  $tasks
     * @return list<TaskResource>
     */
    private function read(Builder $tasks): array
    {
        $rows = $tasks->with(['assignee', 'doer', 'rule'])->get();
        foreach ($rows->groupBy('record_type') as $type => $of) {
            $this->names->rememberTitles($type, array_values($of->pluck('record_id')->all()));
        }

        $together = $this->together($rows);
        $this->texts->remember($rows->map(static fn (Task $task): array => $task->tells)->all());

        return array_values($rows->map(function (Task $task) use ($together): TaskResource {
            $number = $this->schemas->schema()->type($task->record_type)?->numberOf($task->record_id) ?? '';
            $iso = static fn (?\DateTimeImmutable $at): ?string => $at === null ? null : Value::instantText($at);

            return new TaskResource(
                id: $task->id, title: $this->texts->shown($task->title, $task->tells),
                notes: $this->texts->shown($task->notes, $task->tells), priority: $task->priority, status: $task->status->value,
                assigneeId: $task->assignee_id, assigneeHandle: $task->assignee?->handle, assignee: $task->assignee?->name,
                recordType: $task->record_type, recordId: $task->record_id, recordNumber: $number,
                recordTitle: $this->names->title($task->record_type, $task->record_id) ?? $number, rule: $task->rule_id,
                ruleName: $task->rule?->name, entry: $task->entry_id, givenAt: Value::instantText($task->given_at),
                dueAt: $iso($task->due_at), doneAt: $iso($task->done_at), doneBy: $task->doer?->name, outcome: $task->outcome,
                together: array_values(array_map(
                    fn (Task $one): TaskBesideResource => TaskBesideResource::of($one, $this->texts->shown($one->title, $one->tells)),
                    array_filter($together[self::line($task)] ?? [], static fn (Task $one): bool => $one->id !== $task->id),
                )),
            );
        })->all());
    }

    /**
     * @param  Collection<int, Task>  $tasks
     * @return array<string, list<Task>> those that lines gave, by line, where one gave several
     */
    private function together(Collection $tasks): array
    {
        $given = $tasks->whereNotNull('rule_id');
        $lines = [];
        foreach ($given->isEmpty() ? [] : Task::query()->with('assignee')->whereIn('entry_id', $given->pluck('entry_id')->unique())
            ->where($this->seen(...))->orderBy('id')->get() as $task) {
            $lines[self::line($task)][] = $task;
        }

        return array_filter($lines, static fn (array $of): bool => count($of) > 1);
    }

    private static function line(Task $task): string
    {
        return "{$task->entry_id}:{$task->record_type}:{$task->record_id}:{$task->line_key}";
    }
}

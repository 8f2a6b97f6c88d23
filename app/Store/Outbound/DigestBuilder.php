<?php

declare(strict_types=1);

namespace App\Store\Outbound;

use App\Models\Columns;
use App\Models\Tasks\Task;
use App\Store\Sql\Matching;
use App\Store\Types\SchemaStore;
use VividLedger\Condition\Condition;
use VividLedger\Facts\Facts;
use VividLedger\Facts\View;
use VividLedger\House\Person;
use VividLedger\People\Who;
use VividLedger\Record\Record;
use VividLedger\Rule\Line\Gathered;
use VividLedger\Rule\Line\ListedTask;
use VividLedger\Rule\Line\SentTogether;

/** What belongs on the lists of people: the records that lead to each of them, section by section, and their open tasks. */
final readonly class DigestBuilder
{
    private const CHUNK = 1000;

    public function __construct(private SchemaStore $schemas)
    {
    }

    /** @return \Generator<int, Record> all that meet a condition now, in order */
    public function matching(string $typeName, ?Condition $condition, \DateTimeImmutable $now, \DateTimeZone $zone): \Generator
    {
        $type = $this->schemas->schema()->types[$typeName];
        foreach (Matching::query($type, $condition, $now, $zone)->lazyById(self::CHUNK, 't.id', 'id') as $row) {
            yield Columns::record($type, $row);
        }
    }

    /**
     * @param  Who  $per  whose the records are that the timetable puts together
     * @return array<int, array{Person, Gathered}> by the person's id; whoever has nothing is left out
     */
    public function byPerson(
        SentTogether $list,
        string $type,
        Condition $condition,
        Who $per,
        Facts $facts,
        \DateTimeZone $zone,
    ): array {
        $people = [];
        $records = [];
        foreach ($list->sections() as $index => $section) {
            $whose = $section->per ?? $per;
            [$of, $where] = $index === 0 ? [$type, $condition] : [$section->type->name, $section->where];
            foreach ($this->matching($of, $where, $facts->now(), $zone) as $record) {
                $person = $whose->find(new View($record, $facts))->person;
                if ($person !== null && $person->active) {
                    $people[$person->id] = $person;
                    $records[$person->id][$index][] = $record;
                }
            }
        }
        $tasks = [];
        foreach ($list->wantsTasks() ? $this->tasks() : [] as $task) {
            $person = $people[$task->assignee] ?? $facts->person($task->assignee);
            if ($person !== null && $person->active) {
                $people[$person->id] = $person;
                $tasks[$person->id][] = $task;
            }
        }
        ksort($people);
        $gathered = [];
        foreach ($people as $id => $person) {
            $gathered[$id] = [
                $person,
                new Gathered(
                    array_map(static fn (int $index): array => $records[$id][$index] ?? [], array_keys($list->sections())),
                    $tasks[$id] ?? [],
                ),
            ];
        }

        return $gathered;
    }

    /** @return list<ListedTask> everybody's open tasks that have a date */
    public function tasks(): array
    {
        $tasks = Task::query()->open()->whereNotNull('assignee_id')->whereNotNull('due_at')
            ->orderBy('assignee_id')->orderBy('due_at')->orderBy('id')->get();

        return array_values($tasks->map(fn (Task $task): ListedTask => new ListedTask(
            assignee: (int) $task->assignee_id, title: $task->title,
            due: $task->due_at ?? throw new \LogicException('Asked for with a date.'), type: $task->record_type, record: $task->record_id,
            number: $this->schemas->schema()->type($task->record_type)?->numberOf($task->record_id) ?? '',
        ))->all());
    }
}

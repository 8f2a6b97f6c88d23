<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\Condition\Condition;
use VividLedger\Engine\Facts;
use VividLedger\Engine\View;
use VividLedger\People\Person;
use VividLedger\People\PersonExpression;
use VividLedger\Record\Record;
use VividLedger\Rule\Line\Gathered;
use VividLedger\Rule\Line\ListedTask;
use VividLedger\Rule\Line\SendList;

/** What belongs on the lists of people: the records that lead to each of them, section by section, and their open tasks. */
final readonly class Gathering
{
    private const CHUNK = 1000;

    public function __construct(private Connection $db, private SchemaStore $schemas)
    {
    }

    /** @return iterable<Record> all that meet a condition now, in order */
    public function matching(string $typeName, ?Condition $condition, \DateTimeImmutable $now, \DateTimeZone $zone): iterable
    {
        $type = $this->schemas->schema()->types[$typeName];
        $writer = new SqlQueryWriter($now, $zone);
        $where = $condition?->query($writer) ?? new Sql('TRUE');
        $after = 0;
        do {
            $rows = $this->db->select(
                'SELECT t.* FROM `'.TypeTable::name($type->name)."` t{$writer->joins()} WHERE {$where->text} AND t.id > ? ORDER BY t.id LIMIT ".self::CHUNK,
                [...$where->bindings, $after],
            );
            foreach ($rows as $row) {
                $after = (int) $row->id;
                yield Columns::record($type, $row);
            }
        } while (count($rows) === self::CHUNK);
    }

    /**
     * @param  PersonExpression  $per  whose the records are that the timetable puts together
     * @return array<int, array{Person, Gathered}> by the person's id; whoever has nothing is left out
     */
    public function byPerson(
        SendList $list,
        string $type,
        Condition $condition,
        PersonExpression $per,
        Facts $facts,
        \DateTimeZone $zone,
    ): array {
        $people = [];
        $records = [];
        foreach ($list->sections as $index => $section) {
            $whose = $section->per ?? $per;
            foreach ($this->matching($index === 0 ? $type : $section->type->name, $index === 0 ? $condition : $section->where, $facts->now(), $zone) as $record) {
                $person = $whose->find(new View($record, $facts))->person;
                if ($person !== null && $person->active) {
                    $people[$person->id] = $person;
                    $records[$person->id][$index][] = $record;
                }
            }
        }
        $tasks = [];
        foreach ($list->tasks ? $this->tasks() : [] as $task) {
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
                    array_map(static fn (int $index): array => $records[$id][$index] ?? [], array_keys($list->sections)),
                    $tasks[$id] ?? [],
                ),
            ];
        }

        return $gathered;
    }

    /** @return list<ListedTask> everybody's open tasks that have a date */
    public function tasks(): array
    {
        return array_map(fn (object $row): ListedTask => new ListedTask(
            (int) $row->assignee_id, $row->title, new \DateTimeImmutable("{$row->due_at}Z"), $row->record_type, (int) $row->record_id,
            $this->schemas->schema()->type($row->record_type)?->numberOf((int) $row->record_id) ?? '',
        ), array_values($this->db->select("SELECT assignee_id, title, due_at, record_type, record_id FROM tasks WHERE status = 'open' AND assignee_id IS NOT NULL AND due_at IS NOT NULL ORDER BY assignee_id, due_at, id")));
    }
}

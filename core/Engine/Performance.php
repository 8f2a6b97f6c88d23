<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Rule\Line\TaskGiven;
use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;

/** What the lines of one firing do, gathered in order. Later lines see what earlier ones set. */
final class Performance
{
    /** @var list<array<string, mixed>> what each line did, as the entry keeps it */
    public array $outcomes = [];

    /** @var list<TaskGiven> */
    public array $tasks = [];

    public function __construct(
        public Record $record,
        public readonly RecordType $type,
        public readonly Facts $facts,
        public readonly Display $display,
        public readonly \DateTimeImmutable $now,
        public readonly \DateTimeZone $zone,
    ) {
    }

    public function view(): View
    {
        return new View($this->record, $this->facts);
    }

    public function number(): string
    {
        return $this->type->numberOf($this->record->id);
    }

    public function set(Field $field, string|int|bool|null $value): void
    {
        $before = $this->record->value($field->name);
        $this->outcomes[] = [
            'kind' => 'set',
            'field' => $field->name,
            'label' => $field->label,
            'before' => $this->display->of($field, $before),
            'after' => $this->display->of($field, $value),
            'changed' => $before !== $value,
        ];
        $this->record = $this->record->with([$field->name => $value]);
    }

    public function give(TaskGiven $task): void
    {
        $this->tasks[] = $task;
        $this->outcomes[] = [
            'kind' => 'task',
            'title' => $task->title,
            'person' => $task->person?->name,
            'path' => $task->path,
            'stoodIn' => $task->stoodIn,
            'due' => $task->due === null ? null : $this->display->moment($task->due),
        ];
    }

    /** A line could not be done; the save goes on, and the entry says why. */
    public function failed(string $what, string $why): void
    {
        $this->outcomes[] = ['kind' => 'failed', 'label' => $what, 'why' => $why];
    }
}

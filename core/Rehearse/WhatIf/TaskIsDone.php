<?php

declare(strict_types=1);

namespace VividLedger\Rehearse\WhatIf;

use VividLedger\Record\Display;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Rehearse\Play;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** A task that the rehearsal gave is done. Tasks nobody does stay open. */
final readonly class TaskIsDone implements WhatIf
{
    /** @param  int  $task  the how-manieth of the rehearsal, from 1 */
    public function __construct(private \DateTimeImmutable $at, private int $task)
    {
    }

    public static function kind(): string
    {
        return 'task_done';
    }

    public function at(): \DateTimeImmutable
    {
        return $this->at;
    }

    public function prepare(Play $play): void
    {
    }

    public function apply(Play $play, int $record, RecordType $type, ?int $actor): void
    {
        $task = $play->paper->runs->tasks[$this->task - 1] ?? null;
        if ($task === null || $task->doneAt !== null) {
            return;
        }
        $task->doneAt = $this->at;
        $play->recordEvent(
            $task->given->record,
            new Event(EventKind::TaskDone, "task:{$this->task}", $task->given->title),
            $actor,
            true,
            $task->entry,
        );
    }

    public function said(RecordType $type, Display $display): string
    {
        return Words::say('task {task} is done', task: $this->task);
    }
}

<?php

declare(strict_types=1);

namespace App\Work\Tasks;

use App\Models\Ledger\Entry;
use App\Models\Tasks\Task;
use App\Models\Timing\LineStatus;
use App\Models\Timing\ScheduledLine;
use App\Store\Sql\Batch;
use App\Work\Timing\DueTask;
use VividLedger\Record\CauseKind;

/** Tasks fall due: each is an entry, from which people and feeds learn of it. */
final class TasksDue
{
    /** @param  list<DueTask>  $rows */
    public static function fall(array $rows): void
    {
        $tasks = Task::query()->findMany(array_map(static fn (DueTask $row): int => $row->task, $rows))->keyBy('id');
        $entries = [];
        foreach ($rows as $row) {
            $task = $tasks[$row->task] ?? null;
            if ($task !== null && $row->due !== null) {
                $entries[] = Entry::row('task_due', $row->due, ['title' => $task->title, 'person' => $task->assignee_id], [
                    'via' => CauseKind::Rule, 'record_type' => $row->type, 'record_id' => $row->record,
                    'rule_id' => $task->rule_id, 'task_id' => $task->id, 'cause_id' => $row->entry,
                ]);
            }
        }
        Batch::insert(Entry::class, $entries);
        ScheduledLine::rows()->whereIn(
            'id',
            array_map(static fn (DueTask $row): int => $row->id, $rows),
        )->update(['status' => LineStatus::Inked]);
    }
}

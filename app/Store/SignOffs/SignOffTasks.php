<?php

declare(strict_types=1);

namespace App\Store\SignOffs;

use App\Models\Casts\Lines;
use App\Models\Columns;
use App\Models\SignOffs\SignOffSeat;
use App\Models\SignOffs\StoredSignOff;
use App\Models\Tasks\Task;
use App\Models\Tasks\TaskStatus;
use App\Models\Timing\LineSort;
use App\Models\Timing\LineStatus;
use App\Models\Timing\ScheduledLine;
use App\Store\Sql\Batch;
use VividLedger\Engine\StruckCode;
use VividLedger\SignOff\SeatState;

/** Tasks that go with a sign-off: whoever is asked has one, with the date by which to answer, until they have. */
final class SignOffTasks
{
    private const TITLE = 190;

    /**
     * Gives one to everybody who is asked and has none.
     *
     * @param  string  $about  what is to be signed off, in words
     */
    public static function give(StoredSignOff $kept, string $about, int $entry, \DateTimeImmutable $now): void
    {
        $seats = SignOffSeat::query()->where('sign_off_id', $kept->id)->where('state', SeatState::Waiting)->whereNull('task_id')
            ->orderBy('place')->get()->all();
        $rows = array_values(array_map(static fn (SignOffSeat $seat): array => [
            'title' => mb_substr("Sign off: {$about}", 0, self::TITLE), 'notes' => $kept->why, 'priority' => 'normal',
            'record_type' => $kept->record_type, 'record_id' => $kept->record_id, 'about_type' => null, 'about_id' => null,
            'assignee_id' => $seat->person_id, 'rule_id' => $kept->rule_id, 'entry_id' => $entry, 'given_at' => Columns::moment($now),
            'due_at' => $seat->due_at === null ? null : Columns::moment($seat->due_at), 'run_id' => null, 'line_key' => '',
            'tells' => Lines::text($kept->tells),
        ], $seats));
        $lines = [];
        foreach (Batch::insertForIds(Task::class, $rows) as $index => $id) {
            SignOffSeat::query()->whereKey($seats[$index]->id)->update(['task_id' => $id]);
            if ($rows[$index]['due_at'] !== null) {
                $lines[] = [
                    'sort' => LineSort::Task, 'kind' => 'task_due', 'due_at' => $rows[$index]['due_at'],
                    'record_type' => $kept->record_type, 'record_id' => $kept->record_id, 'task_id' => $id, 'entry_id' => $entry,
                ];
            }
        }
        Batch::insert(ScheduledLine::class, $lines);
    }

    /**
     * Whoever has answered has done their task; whoever need not any more has none.
     *
     * @param  ?int  $doneBy  who has just answered
     */
    public static function over(int $signOff, ?int $doneBy, \DateTimeImmutable $now): void
    {
        $past = SignOffSeat::query()->where('sign_off_id', $signOff)->where('state', '!=', SeatState::Waiting)->whereNotNull('task_id')
            ->get(['id', 'task_id', 'person_id', 'state']);
        if ($past->isEmpty()) {
            return;
        }
        foreach ($past as $seat) {
            $isDone = $seat->person_id === $doneBy && in_array($seat->state, [SeatState::Yes, SeatState::No], true);
            Task::query()->whereKey($seat->task_id)->where('status', TaskStatus::Open)->update([
                'status' => $isDone ? TaskStatus::Done : TaskStatus::Cancelled, 'done_at' => Columns::moment($now),
                'done_by' => $isDone ? $doneBy : null,
            ]);
        }
        ScheduledLine::rows()->whereIn('task_id', $past->pluck('task_id'))->where('status', LineStatus::Pencilled)
            ->update(ScheduledLine::struck(StruckCode::TaskDone, 'the sign-off was answered'));
    }
}

<?php

declare(strict_types=1);

namespace App\Store\Timing;

use App\Models\Columns;
use App\Models\Outbound\StoredCall;
use App\Models\SignOffs\StoredSignOff;
use App\Models\Slips\StoredSlip;
use App\Models\Tasks\Task;
use App\Models\Tasks\TaskStatus;
use App\Models\Timing\RuleRun;
use App\Models\Timing\ScheduledLine;
use Illuminate\Database\Eloquent\Builder;
use VividLedger\Facts\Awaited;
use VividLedger\Facts\PencilledLine;
use VividLedger\Facts\Run;
use VividLedger\Record\Alteration;
use VividLedger\Record\WaitedSort;
use VividLedger\Rule\Performance\CallMade;
use VividLedger\Rule\Performance\SignOffAsked;

/** Reads runs in play with their pencilled lines. */
final class RunsInPlay
{
    /**
     * @param  ?\DateTimeImmutable  $at  only those of a later time left out; those over since then are no longer known
     * @return list<Run> the oldest first
     */
    public static function of(string $type, int $id, ?\DateTimeImmutable $at = null): array
    {
        $runs = RuleRun::query()->inPlay()->about($type, $id)->orderBy('id');

        return self::runs($at === null ? $runs : $runs->where('started_at', '<=', Columns::moment($at)));
    }

    /**
     * @param  list<int>  $ids
     * @return array<int, Run> by id
     */
    public static function byIds(array $ids): array
    {
        return $ids === [] ? [] : array_column(self::runs(RuleRun::query()->whereIn('id', $ids)), null, 'id');
    }

    /** @param  ?\DateTimeImmutable  $then  as they were at a moment; null for now */
    public static function tasks(int $run, string $key, ?\DateTimeImmutable $then = null): ?Awaited
    {
        $tasks = ($then === null ? Task::rows() : Task::givenRows($then))->where('run_id', $run)->where('line_key', $key)
            ->get(['status', 'given_at', 'due_at', 'done_at']);
        $isOpen = static fn (\stdClass $task): bool => $then === null ? $task->status === TaskStatus::Open->value
            : $task->done_at === null || $task->done_at > Columns::moment($then);
        $tasks = $tasks->filter(static fn (\stdClass $task): bool => $isOpen($task) || ! TaskStatus::from($task->status)->isGone());
        if ($tasks->isEmpty()) {
            return self::signOff($run, $key, $then) ?? self::slip($run, $key, $then)
                ?? self::call($run, $key, $then);
        }
        $at = static fn (mixed $column): ?\DateTimeImmutable => is_string($column) ? Columns::instant($column) : null;
        $open = $tasks->filter($isOpen)->count();

        return new Awaited(
            $open,
            $at($tasks->min('given_at')) ?? throw new \LogicException('A task was given at some time.'),
            $at($tasks->max('due_at')),
            $open === 0 ? $at($tasks->max('done_at')) : null,
        );
    }

    /** @param  ?\DateTimeImmutable  $then  as it was at a moment; null for now */
    private static function call(int $run, string $key, ?\DateTimeImmutable $then): ?Awaited
    {
        $row = $key === '' ? null : StoredCall::query()->where('run_id', $run)->where('line_key', $key)->latest('id')->first();
        if ($row === null || ($then !== null && $row->made_at > $then)) {
            return null;
        }
        $isOver = $row->ended_at !== null && ($then === null || $row->ended_at <= $then);

        return CallMade::awaits($row->made_at, $isOver ? $row->ended_at : null, $isOver ? $row->status->value : '');
    }

    /** @param  ?\DateTimeImmutable  $then  as it was at a moment; null for now */
    private static function slip(int $run, string $key, ?\DateTimeImmutable $then): ?Awaited
    {
        $row = $key === '' ? null : StoredSlip::query()->where('run_id', $run)->where('line_key', $key)->latest('id')->first();
        if ($row === null || ($then !== null && $row->started_at > $then)) {
            return null;
        }
        $isOver = $row->ended_at !== null && ($then === null || $row->ended_at <= $then);

        return new Awaited(
            $isOver ? 0 : 1, $row->started_at, null, $isOver ? $row->ended_at : null, $isOver ? $row->status->value : '',
            said: $isOver ? $row->chosen : [], sort: WaitedSort::Slip,
        );
    }

    /** @param  ?\DateTimeImmutable  $then  as it was at a moment; null for now */
    private static function signOff(int $run, string $key, ?\DateTimeImmutable $then): ?Awaited
    {
        $row = $key === '' ? null : StoredSignOff::query()->with('seats')->where('run_id', $run)->where('line_key', $key)->latest('id')
            ->first();

        return $row === null || ($then !== null && $row->started_at > $then) ? null : SignOffAsked::awaits($row->signOff(), $then);
    }

    /**
     * Without making objects of the rows: every line that falls due asks for its run.
     *
     * @param  Builder<RuleRun>  $asked
     * @return list<Run>
     */
    private static function runs(Builder $asked): array
    {
        $runs = [];
        foreach ($asked->toBase()->get() as $row) {
            $made = $row->made === null ? [] : json_decode($row->made, true, 16, JSON_THROW_ON_ERROR);
            $began = $row->began === null ? null : json_decode($row->began, true, 16, JSON_THROW_ON_ERROR);
            $runs[(int) $row->id] = new Run(
                id: (int) $row->id, rule: (int) $row->rule_id, page: (int) $row->page, type: $row->record_type,
                record: (int) $row->record_id, startedAt: Columns::instant($row->started_at), made: $made, entry: (int) $row->entry_id,
                began: Alteration::read($began),
            );
        }
        if ($runs === []) {
            return [];
        }
        $lines = ScheduledLine::toComeRows()->whereIn('run_id', array_keys($runs))->orderBy('id')->get([
            'id', 'run_id', 'place', 'turn', 'due_at', 'meant_at', 'counted_at', 'met_at',
        ]);
        // Those that wait for something have no time yet, and come last.
        foreach ($lines->sortBy(static fn (object $line): string => $line->due_at ?? '~') as $row) {
            $run = $runs[(int) $row->run_id];
            $due = $row->due_at === null ? null : Columns::instant($row->due_at);
            $meant = $row->meant_at === null ? null : Columns::instant($row->meant_at);
            $run->lines[] = new PencilledLine(
                id: (int) $row->id, run: $run, place: (int) $row->place, turn: (int) $row->turn, due: $due, meant: $meant,
                counted: $row->counted_at === null ? null : Columns::instant($row->counted_at),
                met: $row->met_at === null ? null : Columns::instant($row->met_at),
            );
        }

        return array_values($runs);
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Engine\ExecutedStep;
use VividLedger\Engine\Firing;
use VividLedger\Engine\Lapsed;
use VividLedger\Engine\LineDone;
use VividLedger\Engine\Postponed;
use VividLedger\Engine\Retimed;
use VividLedger\Engine\Step;
use VividLedger\Engine\Struck;
use VividLedger\Engine\TooLate;
use VividLedger\Engine\WaitsForRelease;
use VividLedger\Facts\Awaited;
use VividLedger\Facts\OpenTask;
use VividLedger\Facts\PencilledLine;
use VividLedger\Facts\Run;
use VividLedger\Record\Record;
use VividLedger\Rule\Performance\Pencilling;

/** Runs, pencilled lines and tasks on paper: what becomes of them when a step of a decision is taken in. */
final class PaperRuns
{
    /** @var array<int, Run> by id */
    private array $runs = [];

    /** @var array<int, int> the entry that began a run, by run */
    private array $begunBy = [];

    /** @var list<PaperTask> in the order they were given */
    public array $tasks = [];

    /** @var array<int, true> ids of tasks that have lapsed */
    private array $lapsed = [];

    public readonly PaperSignOffs $signOffs;

    public readonly PaperSlips $slips;

    /** @var list<PaperCall> in the order they were made */
    public array $calls = [];

    /** @var list<int> the how-manieth calls fail, from 1 */
    public array $failing = [];

    /** @var array<int, \DateTimeImmutable> when lines were due that wait for their record to be free, by line */
    private array $locked = [];

    private int $lastRun = 0;

    private int $lastLine = 0;

    public function __construct()
    {
        $this->signOffs = new PaperSignOffs;
        $this->slips = new PaperSlips;
    }

    /** @param  int  $entry  number on paper of what is taken in */
    public function take(Step $step, int $entry, \DateTimeImmutable $now): void
    {
        $run = null;
        if ($step instanceof Firing && $step->performance->pencilled !== []) {
            $this->runs[++$this->lastRun] = $run = new Run(
                id: $this->lastRun, rule: $step->rule->id, page: $step->rule->page, type: $step->before->type, record: $step->before->id,
                startedAt: $step->performance->now, made: self::made($step), entry: $entry, began: $step->cause->alteration(),
            );
            $this->begunBy[$run->id] = $entry;
            $this->pencil($run, $step->performance->pencilled);
        } elseif ($step instanceof LineDone) {
            $run = $this->done($step);
        } elseif ($step instanceof TooLate) {
            $this->drop($step->line->run->id, [$step->line->id]);
        } elseif ($step instanceof Struck) {
            $this->drop($step->run->id, $step->lines);
        } elseif ($step instanceof Lapsed) {
            $this->lapse($step->task);
        } elseif ($step instanceof Retimed) {
            foreach ($step->lines as $id => $moved) {
                $this->move($step->run->id, $id, $moved[1], $moved[2] ?? null, $step->met);
            }
        } elseif ($step instanceof Postponed) {
            $this->move($step->line->run->id, $step->line->id, $step->until, $step->line->meant);
        } elseif ($step instanceof WaitsForRelease && $step->line->due !== null) {
            $this->locked[$step->line->id] = $step->line->due;
            $this->move($step->line->run->id, $step->line->id, null, $step->line->meant);
        }
        if ($step instanceof ExecutedStep) {
            foreach ($step->performance->calls as $made) {
                $this->calls[] = new PaperCall(
                    number: count($this->calls) + 1, made: $made, rule: $step->rule, entry: $entry, run: $run?->id, at: $now,
                );
            }
            foreach ($step->performance->tasks as $task) {
                $this->tasks[] = new PaperTask(
                    number: count($this->tasks) + 1, given: $task, givenAt: $step->performance->now, rule: $step->rule, entry: $entry,
                    run: $run?->id,
                );
            }
        }
        $this->signOffs->take($step, $entry, $run?->id, $now);
        $this->slips->take($step, $entry, $run?->id, $now);
    }

    private function lapse(OpenTask $lapsed): void
    {
        $this->lapsed[$lapsed->id] = true;
        foreach ($this->tasks as $task) {
            $task->isLapsed = $task->isLapsed || $task->number === -$lapsed->id;
        }
    }

    private function done(LineDone $step): Run
    {
        $this->drop($step->line->run->id, [$step->line->id]);
        $old = $this->runs[$step->line->run->id] ?? $step->line->run->without([$step->line->id]);
        $run = new Run(
            id: $old->id, rule: $old->rule, page: $old->page, type: $old->type, record: $old->record, startedAt: $old->startedAt,
            made: self::made($step) + $old->made, entry: $old->entry, began: $old->began,
        );
        foreach ($old->lines as $line) {
            $run->lines[] = new PencilledLine(
                id: $line->id, run: $run, place: $line->place, turn: $line->turn, due: $line->due, meant: $line->meant,
                counted: $line->counted, met: $line->met,
            );
        }
        $this->runs[$run->id] = $run;
        $this->pencil($run, $step->performance->pencilled);

        return $run;
    }

    /** Takes a run in as it is, with its lines. */
    public function adopt(Run $run): void
    {
        $this->lastRun = max($this->lastRun, $run->id);
        $this->runs[$run->id] = $run->without([]);
        foreach ($run->lines as $line) {
            $this->lastLine = max($this->lastLine, $line->id);
        }
    }

    /** @return list<Run> in play on a record, the oldest first */
    public function on(string $type, int $id): array
    {
        return array_values(array_map(
            static fn (Run $run): Run => $run->without([]),
            array_filter($this->runs, static fn (Run $run): bool => $run->type === $type && $run->record === $id && $run->lines !== []),
        ));
    }

    /** The line that falls due next; null when none has a time. */
    public function nextDue(): ?PencilledLine
    {
        $next = null;
        foreach ($this->runs as $run) {
            foreach ($run->lines as $line) {
                if ($line->due !== null && ($next === null || [$line->due, $line->id] < [$next->due, $next->id])) {
                    $next = $line;
                }
            }
        }

        return $next;
    }

    /**
     * The lines of a run that fall due at the moment of one of them, in the order written.
     *
     * @return list<PencilledLine>
     */
    public function atMomentOf(PencilledLine $line): array
    {
        $moment = array_values(array_filter(
            $this->runs[$line->run->id]->lines ?? [],
            static fn (PencilledLine $other): bool => $other->due?->getTimestamp() === $line->due?->getTimestamp(),
        ));
        usort(
            $moment,
            static fn (PencilledLine $one, PencilledLine $other): int => [$one->place, $one->id] <=> [$other->place, $other->id],
        );

        return $moment;
    }

    /** Whether a line still stands in pencil, for the same moment. */
    public function stands(PencilledLine $line): ?PencilledLine
    {
        foreach ($this->runs[$line->run->id]->lines ?? [] as $other) {
            if ($other->id === $line->id) {
                return $other->due?->getTimestamp() === $line->due?->getTimestamp() ? $other : null;
            }
        }

        return null;
    }

    /** A record is free: lines that fell due meanwhile are due since then. */
    public function release(string $type, int $id): void
    {
        foreach ($this->on($type, $id) as $run) {
            foreach ($run->lines as $line) {
                if ($line->due === null && isset($this->locked[$line->id])) {
                    $this->move($run->id, $line->id, $this->locked[$line->id], $line->meant);
                }
                unset($this->locked[$line->id]);
            }
        }
    }

    /** A line that cannot be done. */
    public function forget(PencilledLine $line): void
    {
        $this->drop($line->run->id, [$line->id]);
    }

    /** @return list<PencilledLine> what has no time and what has not come yet, by time */
    public function left(): array
    {
        $left = array_merge(...array_map(static fn (Run $run): array => $run->lines, array_values($this->runs)));
        usort($left, self::byTime(...));

        return $left;
    }

    /** The entry on paper that began a run; null when it began before the rehearsal. */
    public function beginning(Run $run): ?int
    {
        return $this->begunBy[$run->id] ?? null;
    }

    public function tasksOf(int $run, string $key): ?Awaited
    {
        $tasks = array_filter($this->tasks,
            static fn (PaperTask $task): bool => $task->run === $run && $task->given->key === $key && ! $task->isLapsed);
        if ($tasks === []) {
            return $this->signOffs->awaited($run, $key) ?? $this->slips->awaited($run, $key) ?? $this->call($run, $key);
        }
        $dues = array_filter(array_map(static fn (PaperTask $task): ?\DateTimeImmutable => $task->given->due, $tasks));
        $open = count(array_filter($tasks, static fn (PaperTask $task): bool => $task->isOpen()));
        $done = array_filter(array_map(static fn (PaperTask $task): ?\DateTimeImmutable => $task->doneAt, $tasks));

        return new Awaited(
            $open,
            min(array_map(static fn (PaperTask $task): \DateTimeImmutable => $task->givenAt, $tasks)),
            $dues === [] ? null : max($dues),
            $open === 0 && $done !== [] ? max($done) : null,
        );
    }

    /**
     * @param  list<OpenTask>  $before  that were given before the rehearsal
     * @return list<OpenTask> with those given on paper, which are numbered from -1 down
     */
    public function mayLapse(string $type, int $id, array $before): array
    {
        $open = array_values(array_filter($before, fn (OpenTask $task): bool => ! isset($this->lapsed[$task->id])));
        foreach ($this->tasks as $task) {
            [$given, $about] = [$task->given, $task->given->record];
            if ($task->isOpen() && $given->lapses && $given->place !== null && $about->type === $type && $about->id === $id) {
                $open[] = new OpenTask(
                    id: -$task->number, rule: $task->rule->id, page: $task->rule->page, place: $given->place, title: $given->title,
                    person: $given->person?->id, key: $given->key, run: $task->run,
                );
            }
        }

        return $open;
    }

    private function call(int $run, string $key): ?Awaited
    {
        foreach (array_reverse($this->calls) as $call) {
            if ($call->run === $run && $call->made->key === $key) {
                return $call->awaited();
            }
        }

        return null;
    }

    /**
     * @param  list<int>  $people
     * @return array<int, int> open tasks that were given on paper
     */
    public function openTasks(array $people): array
    {
        $open = [];
        foreach ($this->tasks as $task) {
            $person = $task->given->person?->id;
            if ($task->isOpen() && $person !== null && in_array($person, $people, true)) {
                $open[$person] = ($open[$person] ?? 0) + 1;
            }
        }
        foreach ($people as $person) {
            $open[$person] = ($open[$person] ?? 0) + $this->signOffs->openTasks($person);
        }

        return $open;
    }

    /** @param  list<Pencilling>  $pencilled */
    private function pencil(Run $run, array $pencilled): void
    {
        foreach ($pencilled as $pencilling) {
            $run->lines[] = new PencilledLine(
                id: ++$this->lastLine, run: $run, place: $pencilling->place, turn: $pencilling->turn, due: $pencilling->due,
                meant: $pencilling->meant, counted: $pencilling->counted, met: $pencilling->met,
            );
        }
        self::order($run);
    }

    /** @param  ?list<int>  $lines  null for all */
    private function drop(int $run, ?array $lines): void
    {
        $kept = $this->runs[$run] ?? null;
        if ($kept !== null) {
            $kept->lines = $lines === null ? [] : array_values(array_filter(
                $kept->lines,
                static fn (PencilledLine $line): bool => ! in_array($line->id, $lines, true),
            ));
        }
    }

    private function move(
        int $run,
        int $id,
        ?\DateTimeImmutable $due,
        ?\DateTimeImmutable $meant,
        ?\DateTimeImmutable $met = null,
    ): void {
        $kept = $this->runs[$run] ?? null;
        if ($kept !== null) {
            $kept->lines = array_map(
                static fn (PencilledLine $line): PencilledLine => $line->id === $id ? new PencilledLine(
                    id: $id, run: $kept, place: $line->place, turn: $line->turn, due: $due, meant: $meant, counted: $line->counted,
                    met: $line->met ?? $met,
                ) : $line,
                $kept->lines,
            );
            self::order($kept);
        }
    }

    /** By when they fall due, as production reads them. */
    private static function order(Run $run): void
    {
        usort($run->lines, self::byTime(...));
    }

    private static function byTime(PencilledLine $one, PencilledLine $other): int
    {
        return [$one->due === null, $one->due, $one->id] <=> [$other->due === null, $other->due, $other->id];
    }

    /** @return array<string, array{string, int}> */
    private static function made(ExecutedStep $step): array
    {
        return array_map(static fn (Record $record): array => [$record->type, $record->id], $step->performance->made);
    }
}

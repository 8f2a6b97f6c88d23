<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Facts\PencilledLine;
use VividLedger\Facts\Run;
use VividLedger\Facts\View;
use VividLedger\Record\Change;
use VividLedger\Record\Display;
use VividLedger\Record\EventKind;
use VividLedger\Record\Record;
use VividLedger\Record\WaitedSort;
use VividLedger\Rule\Line\Placed;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Timing\Occasion;
use VividLedger\Rule\Timing\Timing;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;
use VividLedger\Time\OutOfTime;

/** Looks after runs in play: ends them, moves their lines, and does the lines that fall due. */
final readonly class RunLifecycle
{
    public function __construct(
        private Schema $schema,
        private \DateTimeZone $zone,
    ) {
    }

    /** What a change means for the runs on its record: what ends them, and dates and tasks that their lines hang on. */
    public function tend(DecisionContext $course, Change $answered, ?int $parent, RuleBook $book): void
    {
        $record = $course->now($answered->record());
        foreach ($course->inPlay($record) as $run) {
            $rule = $book->page($run->rule, $run->page);
            if ($rule === null) {
                continue;
            }
            if ($answered->after !== null && $rule->isOver($view = new View($record, $course->standing, $answered))) {
                $course->end($run, $record, StruckCode::Until, 'until '.$this->ended($rule, $view), $parent);

                continue;
            }
            if ($answered->after !== null) {
                $this->comeTrue($course, $run, $rule, $record, $answered, $parent);
            }
            if (in_array($answered->event?->kind, EventKind::AWAITED, true)) {
                $this->tasksMoved($course, $run, $rule, $record, $parent, $answered->event->kind);
            } elseif ($answered->event === null) {
                $this->datesMoved($course, $run, $rule, $record, $answered, $parent);
            }
        }
        if ($answered->after !== null) {
            $this->lapse($course, $answered, $record, $parent, $book);
        }
    }

    /** Tasks lose their point by a change, and lines that wait for them go with them. */
    private function lapse(DecisionContext $course, Change $answered, Record $record, ?int $parent, RuleBook $book): void
    {
        $view = new View($record, $course->standing, $answered);
        foreach ($course->standing->mayLapse($record->type, $record->id) as $task) {
            $rule = $book->page($task->rule, $task->page);
            $finding = $rule?->line($task->place)?->lapses?->explain($view, new Display($course->standing, $this->zone));
            if ($rule === null || $finding?->held !== true) {
                continue;
            }
            $course->lapse(new Lapsed($task, $rule, $record, $finding->hit(), $parent));
            foreach ($task->key === '' ? [] : $course->inPlay($record) as $run) {
                $gone = $run->id !== $task->run ? [] : array_filter(
                    $run->lines,
                    static fn (PencilledLine $line): bool => $rule->line($line->place)?->timing?->waitsFor() === $task->key,
                );
                if ($gone !== []) {
                    $ids = array_values(array_map(static fn (PencilledLine $line): int => $line->id, $gone));
                    $course->add(new Struck(
                        run: $run, record: $record, lines: $ids, code: StruckCode::TaskLapsed, because: 'the task has lapsed',
                        parent: $parent,
                    ));
                }
            }
        }
    }

    /** A line's time has come, or somebody wants it done now. */
    public function fallDue(DecisionContext $course, PencilledLine $line, Rule $rule, Change $event, bool $byHand,
        bool $isFirst = true): void
    {
        $record = $event->record();
        $placed = $rule->line($line->place);
        if ($placed === null) {
            $course->add(new Struck(
                run: $line->run, record: $record, lines: [$line->id], code: StruckCode::NoSuchLine, because: 'the page has no such line',
                parent: null,
            ));

            return;
        }
        $type = $this->typeOf($record);
        $view = new View($record, $course->standing);
        if (! $byHand && $isFirst && $rule->isOver($view)) {
            $course->add(new Struck(
                run: $line->run, record: $record, lines: null, code: StruckCode::Until, because: 'until '.$this->ended($rule, $view),
                parent: null,
            ));

            return;
        }
        $timing = $placed->timing;
        $waitsFor = $timing?->waitsFor();
        $tasks = $waitsFor === null ? null : $course->standing->tasksOf($line->run->id, $waitsFor);
        $occasion = ActionContext::occasionOf(
            record: $record, type: $type, facts: $course->standing, zone: $this->zone, started: $line->countedFrom(),
            tasks: $tasks, turn: $line->turn, met: $line->met,
        );
        $becomes = $line->met === null ? $timing?->becomes() : null;
        $performance = new ActionContext(
            record: $record, type: $type, facts: $course->standing, schema: $this->schema,
            display: new Display($course->standing, $this->zone), now: $course->at, zone: $this->zone, change: $event,
            marks: $course->marks, limits: $rule->limits, started: $line->run->startedAt, run: $line->run->id, counted: $line->counted,
            met: $becomes === null ? $line->met : $course->at,
        );
        $lock = $course->standing->lockOn($record->type, $record->id);
        if ($lock !== null && $lock->run !== $line->run->id) {
            $course->add(new WaitsForRelease($line, $record, $lock));

            return;
        }
        if (! $byHand) {
            if ($placed->tooLate !== null && $line->due !== null && $occasion->reckon($placed->tooLate, $line->due) < $course->at) {
                $course->add(
                    new TooLate(
                        $line,
                        $rule,
                        $record,
                        "it was due {$performance->display->moment($line->due)}, and after {$placed->tooLate->length()} it is too late",
                    ),
                );

                return;
            }
            if ($tasks !== null && $timing->isNeedless($tasks, $line->turn)) {
                [$code, $why] = match (true) {
                    $tasks->sort === WaitedSort::Slip => [StruckCode::SlipEnded, 'the slip has ended otherwise'],
                    $tasks->sort === WaitedSort::Call => [StruckCode::CallEnded, 'the call has ended otherwise'],
                    $tasks->sort === WaitedSort::SignOff => [StruckCode::SignedOff, 'the sign-off has ended otherwise'],
                    $tasks->open === 0 => [StruckCode::TaskDone, 'the task was done'],
                    default => [StruckCode::TaskNotDone, 'the task was not done in time'],
                };
                $course->add(new Struck(
                    run: $line->run, record: $record, lines: [$line->id], code: $code, because: $why, parent: null,
                ));

                return;
            }
            $true = $becomes?->explain($view, $performance->display);
            if ($true?->held === false) {
                $course->add(new Struck(
                    run: $line->run, record: $record, lines: [$line->id], code: StruckCode::NotMet,
                    because: 'what it waited for did not become true in time', parent: null,
                ));

                return;
            }
            $allowed = $performance->allowed($course->at);
            if ($allowed > $course->at) {
                // What was true at its time stays so for it, however long quiet hours are.
                $course->add($true === null ? new Postponed($line, $record, $allowed, 'quiet hours') : new Retimed(
                    run: $line->run, record: $record, lines: [$line->id => [$line->due, $allowed, $course->at]], because: $true->hit(),
                    parent: null, met: $course->at,
                ));

                return;
            }
        }
        foreach ($line->run->made as $name => [$madeType, $id]) {
            $made = $course->standing->record($madeType, $id);
            if ($made !== null) {
                $performance->made[$name] = $made;
            }
        }
        $course->standing->mayWrite(Rule::elsewhere($placed->withItsCases(), $type));
        $performance->placed = $placed;
        $performance->turn = $line->turn;
        $placed->perform($performance);
        $again = $this->again($timing, $occasion, $course->at);
        // One that waits for room under a message cap has its next time already; behind a line that ended the run nothing comes.
        $isOver = ! $isFirst && $rule->isOver(new View($performance->record, $course->standing));
        if ($again !== null && ! $isOver && $performance->pencilled === []) {
            $performance->later($placed, $again[0], $again[1]);
        }
        $course->done(new LineDone(
            line: $line, rule: $rule, cause: $event, performance: $performance, before: $record, after: $performance->record,
        ));
        $this->tasksGiven($course, $line, $rule, $placed, $performance);
    }

    /** @return ?array{int, ?\DateTimeImmutable} nothing that lies beyond all years comes again */
    private function again(?Timing $timing, Occasion $occasion, \DateTimeImmutable $at): ?array
    {
        try {
            return $timing?->again($occasion, $at);
        } catch (OutOfTime) {
            return null;
        }
    }

    /** What in the until holds. */
    private function ended(Rule $rule, View $view): string
    {
        $finding = $rule->until?->explain($view, new Display($view->facts, $this->zone));

        return $finding === null ? '' : $finding->hit();
    }

    private function datesMoved(DecisionContext $course, Run $run, Rule $rule, Record $record, Change $answered, ?int $parent): void
    {
        $fields = $answered->fields();
        $moved = [];
        $names = [];
        foreach ($run->lines as $line) {
            $placed = $rule->line($line->place);
            $hangsOn = $placed?->timing?->hangsOn();
            if ($placed === null || $hangsOn === null || ! in_array($hangsOn, $fields, true)) {
                continue;
            }
            $occasion = ActionContext::occasionOf(
                record: $record, type: $this->typeOf($record), facts: $course->standing, zone: $this->zone,
                started: $line->countedFrom(), tasks: null, turn: $line->turn, met: $line->met,
            );
            try {
                $due = $placed->timing->due($occasion);
            } catch (OutOfTime $never) {
                $course->add(new Struck(
                    run: $run, record: $record, lines: [$line->id], code: StruckCode::OutOfTime, because: $never->getMessage(),
                    parent: $parent,
                ));

                continue;
            }
            $allowed = $due === null || $rule->limits === null ? $due : $rule->limits->allowed($due, $occasion);
            if ($allowed?->getTimestamp() !== $line->due?->getTimestamp()) {
                $moved[$line->id] = [$line->due, $allowed, $allowed == $due ? null : $due];
                $names[$hangsOn] = $this->typeOf($record)->field($hangsOn)->label ?? $hangsOn;
            }
        }
        if ($moved !== []) {
            $course->add(new Retimed($run, $record, $moved, implode(', ', $names).' moved', $parent));
        }
    }

    /** What lines of a run waited for is true now: they are due, or as soon as quiet hours end. */
    private function comeTrue(DecisionContext $course, Run $run, Rule $rule, Record $record, Change $answered, ?int $parent): void
    {
        $moved = [];
        $because = '';
        foreach ($run->lines as $line) {
            $becomes = $line->met === null ? $rule->line($line->place)?->timing?->becomes() : null;
            $finding = $becomes?->explain(new View($record, $course->standing, $answered), new Display($course->standing, $this->zone));
            if ($finding?->held === true && $course->comesTrue($line)) {
                $because = $finding->hit();
                $allowed = $rule->limits === null ? $course->at : $rule->limits->allowed($course->at, ActionContext::occasionOf(
                    record: $record, type: $this->typeOf($record), facts: $course->standing, zone: $this->zone, started: $run->startedAt,
                ));
                $moved[$line->id] = [$line->due, $allowed, $allowed == $course->at ? null : $course->at];
            }
        }
        if ($moved !== []) {
            $course->add(new Retimed(
                run: $run, record: $record, lines: $moved, because: $because, parent: $parent, met: $course->at,
            ));
        }
    }

    /** A task of the run was done: lines that waited for it get their time, lines that were to come if it stayed undone go. */
    private function tasksMoved(DecisionContext $course, Run $run, Rule $rule, Record $record, ?int $parent, EventKind $kind): void
    {
        $gone = [];
        $moved = [];
        foreach ($run->lines as $line) {
            $placed = $rule->line($line->place);
            $waitsFor = $placed?->timing?->waitsFor();
            $tasks = $waitsFor === null ? null : $course->standing->tasksOf($run->id, $waitsFor);
            $isUnderWay = $tasks !== null && $tasks->open > 0 && ! in_array($kind, [EventKind::StepSigned, EventKind::SeatSigned], true);
            if ($placed === null || $tasks === null || $isUnderWay) {
                continue;
            }
            if (! $placed->timing->isNeedless($tasks, $line->turn)) {
                $due = ActionContext::occasionOf(
                    record: $record, type: $this->typeOf($record), facts: $course->standing, zone: $this->zone,
                    started: $line->countedFrom(), tasks: $tasks, turn: $line->turn,
                )->when($placed->timing);
                if ($due?->getTimestamp() !== $line->due?->getTimestamp()) {
                    $moved[$line->id] = [$line->due, $due];
                }
            } else {
                $gone[] = $line->id;
            }
        }
        [$code, $why] = match ($kind) {
            EventKind::SignedOff => [StruckCode::SignedOff, 'the sign-off has ended'],
            EventKind::StepSigned => [StruckCode::SignedOff, 'a step of the sign-off was agreed to'],
            EventKind::SeatSigned => [StruckCode::SignedOff, 'somebody has agreed'],
            EventKind::SlipAnswered => [StruckCode::SlipEnded, 'the slip was answered'],
            EventKind::CallEnded => [StruckCode::CallEnded, 'the call has ended'],
            EventKind::SlipOver => [StruckCode::SlipEnded, 'the slip has ended without an answer'],
            default => [StruckCode::TaskDone, 'the task was done'],
        };
        if ($moved !== []) {
            $course->add(new Retimed($run, $record, $moved, $why, $parent));
        }
        if ($gone !== []) {
            $course->add(new Struck(
                run: $run, record: $record, lines: $gone, code: $code, because: $why, parent: $parent,
            ));
        }
    }

    /** A line gave tasks that others wait for. */
    private function tasksGiven(DecisionContext $course, PencilledLine $given, Rule $rule, Placed $by, ActionContext $performance): void
    {
        $tasks = $by->key === '' ? null : $performance->awaited($by->key);
        if ($tasks === null) {
            return;
        }
        $moved = [];
        foreach ($given->run->lines as $line) {
            $timing = $rule->line($line->place)?->timing;
            if ($timing?->waitsFor() === $by->key && $line->id !== $given->id) {
                $moved[$line->id] = [$line->due, $performance->occasion($tasks, $line->turn)->when($timing)];
            }
        }
        if ($moved !== []) {
            $course->add(new Retimed($given->run, $performance->record, $moved, 'the task was given', null));
        }
    }

    private function typeOf(Record $record): RecordType
    {
        return $this->schema->type($record->type) ?? throw new \LogicException("There is no record type {$record->type}.");
    }
}

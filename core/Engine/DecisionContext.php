<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Facts\GuardState;
use VividLedger\Facts\OverlayFacts;
use VividLedger\Facts\PencilledLine;
use VividLedger\Facts\Run;
use VividLedger\Facts\View;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Change;
use VividLedger\Record\Record;
use VividLedger\Rule\Performance\VersionBumps;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\CutsOff;
use VividLedger\Schema\Schema;

/** A decision on its way: what is still to be answered, what has happened, and how things stand. */
final class DecisionContext
{
    /** @var list<array{Change, ?int}> changes to answer, each with the place of the step that made it */
    public array $queue;

    /** @var array<string, true> either/or sets that have found their rule for the change at hand */
    public array $taken = [];

    public readonly VersionBumps $marks;

    /** @var list<Step> */
    private array $steps = [];

    /** @var array<string, true> by rule and record */
    private array $fired = [];

    /** @var array<int, true> lines that are done together with the one at hand, and so not struck out between them */
    private array $together = [];

    /** @var list<int> ids of lines that were done in this decision */
    private array $doneLines = [];

    /** @var array<int, true> lines for which what they waited for became true in this decision */
    private array $true = [];

    /** @var array<int, true> runs that this decision has ended */
    private array $over = [];

    /** @var array<string, GuardState> of guards made ready again, or used, in this decision */
    private array $states = [];

    /** @var array<string, ?Record> other records as they were before the decision */
    private array $others = [];

    public function __construct(
        private readonly Change $change,
        public readonly OverlayFacts $standing,
        public readonly \DateTimeImmutable $at,
    ) {
        $this->queue = [[$change, null]];
        $this->marks = new VersionBumps($change->event === null && $change->againFor === null ? $change->after : null);
        if ($change->after === null) {
            $standing->remove($change->record());
        } else {
            $standing->lay($change->after);
        }
    }

    /** A record as it stands now; a deleted one as it last was. */
    public function now(Record $record): Record
    {
        return $this->standing->record($record->type, $record->id) ?? $record;
    }

    /** A record whose guard is to be read: nobody else may use that guard before the decision is written. */
    public function held(Record $record): Record
    {
        return $this->change->isAbout($record) ? $record : ($this->standing->recordToChange($record->type, $record->id) ?? $record);
    }

    /** @param  list<string>  $over  names of reference fields, of whose records no child is altered by anybody else before it is written */
    public function keepParents(Change $answered, array $over, Schema $schema): void
    {
        $type = $over === [] ? null : $schema->type($answered->record()->type);
        foreach ($over as $by) {
            $target = $type?->field($by)?->target;
            foreach ($target === null ? [] : array_filter([$answered->before, $answered->after]) as $record) {
                $parent = $record->value($by);
                if (is_int($parent)) {
                    $this->standing->recordToChange((string) $target, $parent);
                }
            }
        }
    }

    /** @return list<View> the other records a rule is judged on, those for which its conditions hold */
    public function views(Rule $rule, Change $answered, ?int $parent): array
    {
        $subjects = $rule->trigger->subjects($answered, $this->standing) ?? [];
        if ($answered->againFor !== null) {
            $subjects = array_values(array_filter(
                $subjects,
                static fn (Record $record): bool => "{$record->type}:{$record->id}" === $answered->againFor,
            ));
        }
        $concerned = $rule->trigger instanceof CutsOff ? $rule->trigger->concerned(
            $answered,
            $this->standing,
            count($subjects),
        ) : count($subjects);
        if ($concerned > count($subjects)) {
            $this->steps[] = new CutOff($rule, $this->now($answered->record()), $parent, count($subjects), $concerned);
        }
        $views = array_map(fn (Record $record): View => new View($this->now($record), $this->standing, $answered), $subjects);

        return array_values(array_filter($views, $rule->holds(...)));
    }

    public function guardState(Rule $rule, Record $record): GuardState
    {
        return $this->states["{$rule->id}:{$record->type}:{$record->id}"] ?? $this->standing->guardState(
            $rule->id,
            $record->type,
            $record->id,
        );
    }

    public function makeReadyAgain(Rule $rule, Change $answered, ?int $parent): void
    {
        if (! $rule->isReadyAgain($answered, $this->standing)) {
            return;
        }
        $record = $this->now($answered->record());
        $state = $this->guardState($rule, $record);
        if ($state->count > 0) {
            $this->states["{$rule->id}:{$record->type}:{$record->id}"] = new GuardState($state->epoch + 1);
            $this->steps[] = new ReadyAgain($rule, $record, $parent, $state->epoch + 1);
        }
    }

    /** Whether nothing in the chain forbids it; a chain that ends here is a step of its own. */
    public function mayFire(Rule $rule, Record $subject, ?int $parent): bool
    {
        if (isset($this->fired["{$rule->id}:{$subject->type}:{$subject->id}"])) {
            // Its own change is no news to a rule, and having fired on another branch is no loop.
            $chain = $this->chain($parent);
            if (in_array($rule, array_slice($chain, 0, -1), true)) {
                $this->steps[] = new Stopped([...$chain, $rule], $parent, true, $subject);
            }

            return false;
        }
        $chain = $parent === null ? [] : $this->chain($parent);
        if (count($chain) >= Engine::MAX_DEPTH) {
            $this->steps[] = new Stopped([...$chain, $rule], $parent, false, $subject);

            return false;
        }

        return true;
    }

    /** Takes a firing in, and puts what its lines changed into the queue. */
    public function fired(Firing $firing): void
    {
        $subject = $firing->before;
        $this->states["{$firing->rule->id}:{$subject->type}:{$subject->id}"] = new GuardState(
            $firing->epoch,
            $this->countAfter($firing),
            $this->at,
        );
        $this->done($firing);
        if ($firing->performance->pencilled !== []) {
            $this->replace($firing);
        }
    }

    /** Takes in what lines did, and puts what they changed into the queue. */
    public function done(ExecutedStep $firing): void
    {
        if ($firing instanceof LineDone) {
            $this->doneLines[] = $firing->line->id;
        }
        $subject = $firing->before;
        $this->fired["{$firing->rule->id}:{$subject->type}:{$subject->id}"] = true;
        $this->steps[] = $firing;
        $place = count($this->steps) - 1;
        $actor = $this->change->actor;
        if ($firing->after->values !== $subject->values) {
            $this->remember($subject, $subject);
            $this->queue[] = [new Change($subject, $firing->after, $actor, $this->at, CauseKind::Rule), $place];
        }
        foreach ($firing->performance->others() as [$before, $after]) {
            $this->remember($after, $before);
            $this->effect(new Change($before, $after, $actor, $this->at, CauseKind::Rule), $place);
        }
        foreach ($firing->performance->events($firing->key(), $firing->rule->id) as $event) {
            $this->effect(Change::event($this->now($event[0]), $event[1], $actor, $this->at, CauseKind::Rule), $place);
        }
    }

    public function add(Step $step): void
    {
        $this->steps[] = $step;
        if ($step instanceof Struck && $step->lines === null) {
            $this->over[$step->run->id] = true;
        } elseif ($step instanceof Struck) {
            array_push($this->doneLines, ...$step->lines ?? []);
        }
    }

    /** Whether a change is the first of this decision by which what a line waits for is true. */
    public function comesTrue(PencilledLine $line): bool
    {
        $isFirst = ! isset($this->true[$line->id]);
        $this->true[$line->id] = true;

        return $isFirst;
    }

    public function lapse(Lapsed $step): void
    {
        $this->standing->taskLapsed($step->task);
        $this->steps[] = $step;
    }

    /** @param  list<int>  $lines  ids of lines due at the same moment, whose turn comes next */
    public function together(array $lines): void
    {
        $this->together = array_fill_keys($lines, true);
    }

    /** Ends a run early: all it still has is struck out, except what is due at this very moment. */
    public function end(Run $run, Record $record, StruckCode $code, string $because, ?int $parent): void
    {
        $left = array_values(array_filter($run->lines, fn (PencilledLine $line): bool => ! isset($this->together[$line->id])));
        if (count($left) === count($run->lines)) {
            $this->add(new Struck(
                run: $run, record: $record, lines: null, code: $code, because: $because, parent: $parent,
            ));
        } elseif ($left !== []) {
            $this->add(
                new Struck(
                    run: $run, record: $record, lines: array_map(static fn (PencilledLine $line): int => $line->id, $left), code: $code,
                    because: $because, parent: $parent,
                ),
            );
        }
    }

    /** @return list<Run> what is in play on a record, without what this decision has ended */
    public function inPlay(Record $record): array
    {
        $runs = [];
        foreach ($this->standing->inPlay($record->type, $record->id) as $run) {
            $left = $run->without($this->doneLines);
            if (! isset($this->over[$run->id]) && $left->lines !== []) {
                $runs[] = $left;
            }
        }

        return $runs;
    }

    /** A rule that fires once more on a record begins anew: what was left of the last time would come twice. */
    private function replace(Firing $firing): void
    {
        foreach ($this->inPlay($firing->before) as $run) {
            if ($run->rule === $firing->rule->id) {
                $this->add(
                    new Struck(
                        run: $run, record: $firing->after, lines: null, code: StruckCode::FiredAgain,
                        because: 'the rule fired again and began anew', parent: count($this->steps) - 1,
                    ),
                );
            }
        }
    }

    /** What names the change among all changes of the record a rule fires on. */
    public function occasion(Record $subject, Change $answered): string
    {
        $root = $this->change->record();
        $own = $this->change->occasion();

        return $this->change->isAbout($subject) ? $own : "{$root->type}:{$root->id}:{$own}";
    }

    public function decision(): Decision
    {
        if ($this->steps === []) {
            return new Decision($this->change->after);
        }
        $others = [];
        foreach ($this->others as $key => $before) {
            [$type, $id] = explode(':', $key);
            $after = $this->standing->record($type, (int) $id);
            if ($after !== null) {
                $others[] = [$before, $after];
            }
        }
        $record = $this->change->record();

        return new Decision($this->standing->record($record->type, $record->id), $this->steps, $others, $this->standing->turnsTaken());
    }

    private function effect(Change $change, int $place): void
    {
        $this->steps[] = new Effect($change, $place);
        $this->queue[] = [$change, count($this->steps) - 1];
    }

    private function remember(Record $record, ?Record $before): void
    {
        $key = "{$record->type}:{$record->id}";
        if (! $this->change->isAbout($record) && ! array_key_exists($key, $this->others)) {
            $this->others[$key] = $before;
        }
    }

    private function countAfter(Firing $firing): int
    {
        return $firing->rule->guard->remembers() ? $this->guardState($firing->rule, $firing->before)->count + 1 : 0;
    }

    /** @return list<Rule> the rules that set each other off up to a step, the first one first */
    private function chain(?int $step): array
    {
        $chain = [];
        while ($step !== null) {
            $at = $this->steps[$step];
            if ($at instanceof ExecutedStep) {
                array_unshift($chain, $at->rule);
            }
            $step = $at->parent();
        }

        return $chain;
    }
}

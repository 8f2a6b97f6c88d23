<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Facts\Facts;
use VividLedger\Facts\GuardState;
use VividLedger\Facts\OverlayFacts;
use VividLedger\Facts\PencilledLine;
use VividLedger\Facts\View;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Change;
use VividLedger\Record\Display;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Record\Record;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\Rule;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;
use VividLedger\Time\Clock;
use VividLedger\Words\Words;

/**
 * Decides what follows from a change, or from a line falling due. It has no side effects: the same change, rules, facts and
 * clock give the same decision, whether in a save, in a rehearsal or in a test.
 */
final readonly class Engine
{
    /** How many firings may follow from one another. */
    public const MAX_DEPTH = 8;

    private RuleExplainer $examiner;

    private RunLifecycle $runner;

    public function __construct(
        private Schema $schema,
        private \DateTimeZone $zone,
    ) {
        $this->examiner = new RuleExplainer($schema, $zone);
        $this->runner = new RunLifecycle($schema, $zone);
    }

    /**
     * Judges every relevant rule in order. A rule is triggered by the change it answers and judged on the record as it
     * then stands, so a later rule sees what an earlier one set. What a rule's lines change is a change of its own,
     * answered after the one before it. A rule fires at most once for one record in all of this.
     */
    public function decide(Change $change, RuleBook $book, Facts $facts, Clock $clock): Decision
    {
        return Words::toKeep(function () use ($change, $book, $facts, $clock): Decision {
            $course = new DecisionContext($change, new OverlayFacts($facts, $this->schema), $clock->now());
            $refusal = $this->answer($course, $book, 0);

            return $refusal === null ? $course->decision() : new Decision($change->before, refusal: $refusal);
        });
    }

    /**
     * A pencilled line falls due: it is done, left out, or put off, and what it changes is answered like any change. Lines due
     * at the same moment are done together, in the order written: what ends their run is read before the first of them.
     *
     * @param  Record  $record  as it is now, kept from being changed by others
     * @param  bool  $byHand  whether somebody wanted it done now; otherwise its time has come
     * @param  bool  $isFirst  whether it is the first of its moment
     * @param  list<int>  $next  ids of the lines of the same moment whose turn comes after it
     */
    public function fallDue(
        PencilledLine $line,
        Rule $rule,
        Record $record,
        RuleBook $book,
        Facts $facts,
        Clock $clock,
        bool $byHand = false,
        bool $isFirst = true,
        array $next = [],
    ): Decision {
        return Words::toKeep(function () use ($line, $rule, $record, $book, $facts, $clock, $byHand, $isFirst, $next): Decision {
            $event = new Event(EventKind::LineDue, "line:{$line->id}", $rule->line($line->place)->said ?? '');
            $change = Change::event(
                record: $record, event: $event, actor: null, at: $clock->now(), cause: CauseKind::Rule, told: $line->run->began,
            );
            $course = new DecisionContext($change, new OverlayFacts($facts, $this->schema), $clock->now());
            $course->together($next);
            $this->runner->fallDue($course, $line, $rule, $change, $byHand, $isFirst);
            // What it changed stands behind the event itself, which no rule waits for.
            $refusal = $this->answer($course, $book, 1);

            return $refusal === null ? $course->decision() : new Decision($record, refusal: $refusal);
        });
    }

    /** Answers what is in the queue, and what that puts into it. */
    private function answer(DecisionContext $course, RuleBook $book, int $from): ?Refusal
    {
        for ($next = $from; $next < count($course->queue); $next++) {
            [$answered, $parent] = $course->queue[$next];
            $course->keepParents($answered, $book->readOver($answered), $this->schema);
            if ($book->mayTouchRuns($answered)) {
                $this->runner->tend($course, $answered, $parent, $book);
            }
            $view = null;
            foreach (EitherOr::narrowestFirst($book->relevantTo($answered)) as $rule) {
                if ($rule->again !== null) {
                    $course->makeReadyAgain($rule, $answered, $parent);
                }
                if (! $rule->asksNoMore && ! $rule->looksAt($answered, $course->standing)) {
                    continue;
                }
                if (($elsewhere = $rule->writesElsewhere($this->schema->types[$rule->on])) !== []) {
                    $course->standing->mayWrite($elsewhere);
                }
                if ($rule->own || $rule->isStartedWhole($answered)) {
                    $view ??= new View($course->now($answered->record()), $course->standing, $answered);
                    // Most rules end here, so this is kept short.
                    if (! $rule->holds($view)) {
                        continue;
                    }
                    $views = [$view];
                } else {
                    $views = $course->views($rule, $answered, $parent);
                }
                foreach ($views as $judged) {
                    $refusal = $this->judge($course, $rule, $judged, $answered, $parent);
                    if ($refusal !== null) {
                        return $refusal;
                    }
                    // What it did, later rules see.
                    $view = null;
                }
            }
            $course->taken = [];
        }

        return null;
    }

    /**
     * Goes on with a rule whose conditions hold.
     *
     * @return ?Refusal when the rule fired and a line of it refused the change
     */
    private function judge(DecisionContext $course, Rule $rule, View $view, Change $answered, ?int $parent): ?Refusal
    {
        $facts = $course->standing;
        $subject = $view->record;
        $set = $rule->eitherOr === '' ? null : "{$rule->eitherOr}:{$subject->type}:{$subject->id}";
        if ($set !== null && isset($course->taken[$set])) {
            return null;
        }
        if ($set !== null) {
            $course->taken[$set] = true;
        }
        $occasion = $rule->trigger->occasionOf($answered, $facts);
        if ($rule->guard->wantsTurn() && $answered->event === null && $occasion === null) {
            $before = $rule->before($answered, $subject, $facts, $this->schema);
            if ($before !== null && $rule->holds($before)) {
                return null;
            }
        }
        $state = new GuardState;
        // What time sets off can come to pass twice when a worker dies, and must not fire twice.
        $isOnce = $occasion !== null || $answered->event?->kind->comesOnce() === true;
        if ($rule->guard->remembers() || $isOnce) {
            $subject = $course->held($subject);
            $state = $course->guardState($rule, $subject);
            $isUsed = static fn (string $key): bool => $facts->guardHeld($rule->id, $subject->type, $subject->id, $state->epoch, $key);
            if ($rule->guard->holdsBack($state, $subject, $course->at, $isUsed)
                || ($isOnce && $isUsed($rule->guard->key($subject, $occasion ?? $course->occasion($subject, $answered), $state)))) {
                return null;
            }
        }
        $lock = $facts->lockOn($subject->type, $subject->id);
        if ($lock !== null) {
            $course->add(new HeldBack($rule, $subject, $answered, $lock, $parent));

            return null;
        }
        if (! $course->mayFire($rule, $subject, $parent)) {
            return null;
        }

        return $this->fire($course, $rule, $subject, $answered, $parent, $state, $occasion);
    }

    private function fire(
        DecisionContext $course,
        Rule $rule,
        Record $subject,
        Change $answered,
        ?int $parent,
        GuardState $state,
        ?string $occasion,
    ): ?Refusal {
        $type = $this->typeOf($subject);
        $facts = $course->standing;
        $why = $this->examiner->examine($rule, $type, $answered, new View($subject, $facts, $answered));
        $performance = new ActionContext(
            record: $subject, type: $type, facts: $facts, schema: $this->schema, display: new Display($facts, $this->zone),
            now: $course->at, zone: $this->zone, change: $answered, marks: $course->marks, limits: $rule->limits,
        );
        $performance->begin($rule->opening());
        if ($performance->refusal !== null) {
            [$field, $message] = $performance->refusal;

            return new Refusal($rule, $field, $message, $why);
        }
        $key = $rule->guard->key($subject, $occasion ?? $course->occasion($subject, $answered), $state);
        $course->fired(new Firing(
            rule: $rule, cause: $answered, parent: $parent, epoch: $state->epoch, guardKey: $key, why: $why, performance: $performance,
            before: $subject, after: $performance->record,
        ));

        return null;
    }

    private function typeOf(Record $record): RecordType
    {
        return $this->schema->type($record->type) ?? throw new \LogicException("There is no record type {$record->type}.");
    }
}

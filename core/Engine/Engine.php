<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Explain\Examiner;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Change;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;
use VividLedger\Schema\Schema;

/**
 * Decides what follows from a change. It has no side effects: the same change, rules, facts and clock give the same
 * decision, whether in a save, in a rehearsal or in a test.
 */
final readonly class Engine
{
    /** How many firings may follow from one another. */
    public const MAX_DEPTH = 8;

    private Examiner $examiner;

    public function __construct(
        private Schema $schema,
        private \DateTimeZone $zone,
    ) {
        $this->examiner = new Examiner($zone);
    }

    /**
     * Judges every relevant rule in order. A rule is triggered by the change it answers and judged on the record as it
     * then stands, so a later rule sees what an earlier one set. What a rule's lines change is a change of its own,
     * answered after the one before it. A rule fires at most once for one record in all of this.
     */
    public function decide(Change $change, RuleBook $book, Facts $facts, Clock $clock): Decision
    {
        $record = $change->after;
        if ($record === null) {
            return new Decision(null);
        }
        $steps = [];
        $fired = [];
        /** @var list<array{Change, ?int}> $queue changes to answer, each with the step that made it */
        $queue = [[$change, null]];
        $view = new View($record, $facts);
        for ($next = 0; $next < count($queue); $next++) {
            [$answered, $parent] = $queue[$next];
            foreach ($book->relevantTo($answered) as $rule) {
                if (! $this->wouldFire($rule, $answered, $view)) {
                    continue;
                }
                $chain = $this->chain($steps, $parent);
                if (isset($fired[$rule->id])) {
                    // Its own change is no news to a rule, and having fired on another branch is no loop.
                    if (in_array($rule, array_slice($chain, 0, -1), true)) {
                        $steps[] = new Stopped([...$chain, $rule], $parent, true);
                    }

                    continue;
                }
                if (count($chain) >= self::MAX_DEPTH) {
                    $steps[] = new Stopped([...$chain, $rule], $parent, false);

                    continue;
                }
                $fired[$rule->id] = true;
                $firing = $this->fire($rule, $answered, $parent, $record, $facts, $clock->now());
                $steps[] = $firing;
                if ($firing->after->values !== $record->values) {
                    $queue[] = [new Change($record, $firing->after, $change->actor, $change->at, CauseKind::Rule), count($steps) - 1];
                    $record = $firing->after;
                    $view = new View($record, $facts);
                }
            }
        }

        return new Decision($record, $steps);
    }

    private function wouldFire(Rule $rule, Change $change, View $now): bool
    {
        if (! $rule->holds($now)) {
            return false;
        }
        if ($rule->guard->wantsTurn() && $change->before !== null && $rule->holds(new View($change->before, $now->facts))) {
            return false;
        }

        return ! $rule->guard->remembers()
            || ! $now->facts->guardHeld($rule->id, $now->record->type, $now->record->id, $rule->guard->key($now->record));
    }

    private function fire(Rule $rule, Change $answered, ?int $parent, Record $record, Facts $facts, \DateTimeImmutable $now): Firing
    {
        $type = $this->schema->type($record->type) ?? throw new \LogicException("There is no record type {$record->type}.");
        $why = $this->examiner->examine($rule, $type, $answered, new View($record, $facts));
        $performance = new Performance($record, $type, $facts, new Display($facts, $this->zone), $now, $this->zone);
        foreach ($rule->lines as $line) {
            $line->perform($performance);
        }

        return new Firing($rule, $answered, $parent, $rule->guard->key($record), $why, $performance, $record, $performance->record);
    }

    /**
     * @param  list<Firing|Stopped>  $steps
     * @return list<Rule> the rules that set each other off up to a step, the first one first
     */
    private function chain(array $steps, ?int $step): array
    {
        $chain = [];
        while ($step !== null) {
            $firing = $steps[$step];
            if (! $firing instanceof Firing) {
                break;
            }
            array_unshift($chain, $firing->rule);
            $step = $firing->parent;
        }

        return $chain;
    }
}

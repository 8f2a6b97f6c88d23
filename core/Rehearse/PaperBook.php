<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Engine\RuleBook;
use VividLedger\Engine\RuleIndex;
use VividLedger\Record\Change;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\Watch;

/** The rules of a rehearsal: the one that is rehearsed among those in force. What time sets off concerns one rule at a time. */
final class PaperBook implements RuleBook
{
    private readonly RuleIndex $index;

    /** @var array<string, bool> whether pages beyond the index may be touched, by what a change touches */
    private array $touches = [];

    /** @param  list<Rule>  $rules  in the order the administrator set */
    public function __construct(
        public readonly array $rules,
        private readonly ?RuleBook $pages = null,
    ) {
        $this->index = new RuleIndex($rules);
    }

    public function relevantTo(Change $change): iterable
    {
        $event = $change->event;

        return $event?->ruleId !== null && $event->kind->comesOnce() ? $this->only($event->ruleId) : $this->index->relevantTo($change);
    }

    public function readOver(Change $change): array
    {
        return $this->index->readOver($change);
    }

    public function mayTouchRuns(Change $change): bool
    {
        // Runs that began before the rehearsal stay on pages the index may not know.
        return $this->index->mayTouchRuns($change)
            || ($this->pages !== null && ($this->touches[$change->record()->type.' '
                .implode(' ', Watch::keysOf($change))] ??= $this->pages->mayTouchRuns($change)));
    }

    public function page(int $rule, int $number): ?Rule
    {
        return $this->index->page($rule, $number) ?? $this->pages?->page($rule, $number);
    }

    /** @return list<Rule> */
    private function only(int $rule): array
    {
        return array_values(array_filter($this->rules, static fn (Rule $known): bool => $known->id === $rule));
    }
}

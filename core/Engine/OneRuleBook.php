<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Record\Change;
use VividLedger\Rule\Rule;

/** A rule book in which one change is answered by one rule only, and what follows from it by all. */
final readonly class OneRuleBook implements RuleBook
{
    public function __construct(private RuleBook $of, private Change $change, private Rule $rule)
    {
    }

    /** @return iterable<Rule> */
    public function relevantTo(Change $change): iterable
    {
        return $change === $this->change ? [$this->rule] : $this->of->relevantTo($change);
    }

    public function readOver(Change $change): array
    {
        return $this->of->readOver($change);
    }

    public function mayTouchRuns(Change $change): bool
    {
        return $change !== $this->change && $this->of->mayTouchRuns($change);
    }

    public function page(int $rule, int $number): ?Rule
    {
        return $this->of->page($rule, $number);
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Record\Change;
use VividLedger\Rule\Rule;

/** A rule book for changes that start no rule, because somebody wanted it so. What is in play already goes on, ends and moves with them. */
final readonly class NoRules implements RuleBook
{
    public function __construct(private RuleBook $of)
    {
    }

    /** @return iterable<Rule> */
    public function relevantTo(Change $change): iterable
    {
        return [];
    }

    public function readOver(Change $change): array
    {
        return $this->of->readOver($change);
    }

    public function mayTouchRuns(Change $change): bool
    {
        return $this->of->mayTouchRuns($change);
    }

    public function page(int $rule, int $number): ?Rule
    {
        return $this->of->page($rule, $number);
    }
}

<?php

declare(strict_types=1);

namespace App\Store\Rules;

use VividLedger\Engine\RuleBook;
use VividLedger\Record\Change;
use VividLedger\Rule\Rule;

/** A rule book for what time or a person brings about: one rule starts on that, and no other does. */
final readonly class StartBook implements RuleBook
{
    public function __construct(private RuleBook $of, private Rule $starts)
    {
    }

    /** @return iterable<Rule> */
    public function relevantTo(Change $change): iterable
    {
        return $change->event?->kind->comesOnce() === true ? [$this->starts] : $this->of->relevantTo($change);
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

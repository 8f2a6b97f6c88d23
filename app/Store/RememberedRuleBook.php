<?php

declare(strict_types=1);

namespace App\Store;

use VividLedger\Engine\RuleBook;
use VividLedger\Record\Change;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\Watch;

/** A rule book for many changes in one transaction: who touches the same fields is not looked up twice. */
final class RememberedRuleBook implements RuleBook
{
    /** @var array<string, array{list<Rule>, bool}> */
    private array $known = [];

    /** @param  ?Rule  $only  starts on what time brings about, and no other rule does */
    public function __construct(private readonly StoredRuleBook $of, private readonly ?Rule $only = null)
    {
    }

    /** @return list<Rule> */
    public function relevantTo(Change $change): array
    {
        if ($change->event?->kind->comesOnce() === true) {
            return $this->only === null ? [] : [$this->only];
        }

        return $this->ask($change)[0];
    }

    public function mayTouchRuns(Change $change): bool
    {
        return $this->ask($change)[1];
    }

    public function page(int $rule, int $number): ?Rule
    {
        return $this->of->page($rule, $number);
    }

    /** @return array{list<Rule>, bool} */
    private function ask(Change $change): array
    {
        return $this->known[$change->record()->type.' '.implode(' ', Watch::keysOf($change))] ??= $this->of->ask($change);
    }
}

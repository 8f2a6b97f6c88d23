<?php

declare(strict_types=1);

namespace App\Store;

use VividLedger\Engine\RuleBook;
use VividLedger\Record\Change;
use VividLedger\Rule\Trigger\Watch;

/** A rule book for many changes in one transaction: who touches the same fields is not looked up twice. */
final class RememberedRuleBook implements RuleBook
{
    /** @var array<string, iterable<\VividLedger\Rule\Rule>> */
    private array $known = [];

    public function __construct(private readonly RuleBook $of)
    {
    }

    public function relevantTo(Change $change): iterable
    {
        return $this->known[$change->record()->type.' '.implode(' ', Watch::keysOf($change))] ??= $this->of->relevantTo($change);
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Record\Change;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\Watch;

/** A rule book held in memory. */
final class RuleIndex implements RuleBook
{
    /** @var array<string, array<string, array<int, Rule>>> by record type, then key of the watch, then position */
    private array $index = [];

    /** @param  list<Rule>  $rules in the order the administrator set */
    public function __construct(array $rules)
    {
        foreach ($rules as $position => $rule) {
            foreach (array_filter([$rule->watch(), $rule->watchAgain()]) as $watch) {
                foreach ($watch->keys() as $key) {
                    $this->index[$watch->type][$key][$position] = $rule;
                }
            }
        }
        foreach ($this->index as $type => $keys) {
            foreach ($keys as $key => $byPosition) {
                ksort($byPosition);
                $this->index[$type][$key] = $byPosition;
            }
        }
    }

    /** @return array<int, Rule> by position, in order */
    public function relevantTo(Change $change): array
    {
        $index = $this->index[$change->record()->type] ?? [];
        $relevant = [];
        $sources = 0;
        foreach (Watch::keysOf($change) as $key) {
            if (isset($index[$key])) {
                $relevant += $index[$key];
                $sources++;
            }
        }
        if ($sources > 1) {
            ksort($relevant);
        }

        return $relevant;
    }
}

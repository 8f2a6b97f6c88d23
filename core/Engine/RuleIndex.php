<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Record\Change;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\Watch;

/** A rule book held in memory. */
final class RuleIndex implements RuleBook
{
    /** @var array<string, array<string, true>> what can touch runs, by record type and key of the watch */
    private array $touching = [];

    /** @var array<string, array<string, array<int, Rule>>> by record type, then key of the watch, then position */
    private array $index = [];

    /** @param  list<Rule>  $rules in the order the administrator set */
    public function __construct(private readonly array $rules)
    {
        foreach ($rules as $position => $rule) {
            foreach (array_filter([$rule->watch(), $rule->watchAgain(), $rule->watchHand()]) as $watch) {
                foreach ($watch->keys() as $key) {
                    $this->index[$watch->type][$key][$position] = $rule;
                }
            }
        }
        foreach ($rules as $rule) {
            foreach ($rule->watchRun()?->keys() ?? [] as $key) {
                $this->touching[$rule->on][$key] = true;
            }
        }
        foreach ($this->index as $type => $keys) {
            foreach ($keys as $key => $byPosition) {
                ksort($byPosition);
                $this->index[$type][$key] = $byPosition;
            }
        }
    }

    /** Nobody else is at work in memory, so nobody has to be kept out. */
    public function readOver(Change $change): array
    {
        return [];
    }

    public function mayTouchRuns(Change $change): bool
    {
        $touching = $this->touching[$change->record()->type] ?? [];

        return $touching !== [] && array_intersect_key($touching, array_flip(Watch::keysOf($change))) !== [];
    }

    public function page(int $rule, int $number): ?Rule
    {
        foreach ($this->rules as $known) {
            if ($known->id === $rule && $known->page === $number) {
                return $known;
            }
        }

        return null;
    }

    /** @return array<int, Rule> by position, in order */
    public function relevantTo(Change $change): array
    {
        $index = $this->index[$change->record()->type] ?? [];
        $fields = $change->event === null && $change->before !== null && $change->after !== null ? $change->fields() : null;
        if ($fields !== null && count($fields) === 1 && ! isset($index[Watch::ANY_FIELD])) {
            // The one field that changed is what nearly every change comes to.
            return $index[$fields[0]] ?? [];
        }
        $sources = [];
        foreach (Watch::keysOf($change) as $key) {
            if (isset($index[$key])) {
                $sources[] = $index[$key];
            }
        }
        if (count($sources) < 2) {
            return $sources[0] ?? [];
        }
        $relevant = array_replace(...$sources);
        ksort($relevant);

        return $relevant;
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Record\Change;
use VividLedger\Rule\Rule;

/** A rule book held in memory. */
final class RuleIndex implements RuleBook
{
    /** @var array<string, array<int, Rule>> by record type, then position */
    private array $onCreation = [];

    /** @var array<string, array<int, Rule>> those that watch every field, by record type */
    private array $onAnyChange = [];

    /** @var array<string, array<string, array<int, Rule>>> by record type, then field; those for any field included */
    private array $onChangeOf = [];

    /** @param  list<Rule>  $rules in the order the administrator set */
    public function __construct(array $rules)
    {
        foreach ($rules as $position => $rule) {
            if ($rule->trigger->onCreation()) {
                $this->onCreation[$rule->on][$position] = $rule;
            }
            $fields = $rule->watches();
            if ($fields === null) {
                $this->onAnyChange[$rule->on][$position] = $rule;
            }
            foreach ($fields ?? [] as $field) {
                $this->onChangeOf[$rule->on][$field][$position] = $rule;
            }
        }
        foreach ($this->onChangeOf as $type => $fields) {
            foreach ($fields as $field => $byPosition) {
                $byPosition += $this->onAnyChange[$type] ?? [];
                ksort($byPosition);
                $this->onChangeOf[$type][$field] = $byPosition;
            }
        }
    }

    /** @return array<int, Rule> by position, in order */
    public function relevantTo(Change $change): array
    {
        $type = $change->record()->type;
        if ($change->before === null) {
            return $this->onCreation[$type] ?? [];
        }
        $fields = $change->fields();
        if (count($fields) === 1) {
            return $this->onChangeOf[$type][$fields[0]] ?? $this->onAnyChange[$type] ?? [];
        }
        $relevant = $fields === [] ? [] : $this->onAnyChange[$type] ?? [];
        foreach ($fields as $field) {
            $relevant += $this->onChangeOf[$type][$field] ?? [];
        }
        ksort($relevant);

        return $relevant;
    }
}

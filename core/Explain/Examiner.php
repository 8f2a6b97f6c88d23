<?php

declare(strict_types=1);

namespace VividLedger\Explain;

use VividLedger\Condition\Finding;
use VividLedger\Engine\View;
use VividLedger\Record\Change;
use VividLedger\Record\Display;
use VividLedger\Rule\Rule;
use VividLedger\Schema\RecordType;

/** Judges a rule as the engine does, but keeps what it saw: for entries, and for "why not?". */
final readonly class Examiner
{
    public function __construct(private \DateTimeZone $zone)
    {
    }

    /** @param  View  $view the record as the rule saw it, which is the change's "after" unless earlier rules had set fields */
    public function examine(Rule $rule, RecordType $type, Change $change, View $view): Verdict
    {
        $display = new Display($view->facts, $this->zone);
        $triggered = $rule->trigger->accepts($change);
        $conditions = $rule->condition->explain($view, $display);
        $heldBefore = $rule->guard->wantsTurn() && $change->before !== null && $rule->holds(new View($change->before, $view->facts));
        $used = $rule->guard->remembers() && $view->facts->guardHeld($rule->id, $view->record->type, $view->record->id, $rule->guard->key($view->record));
        $reason = match (true) {
            ! $triggered => Reason::Trigger,
            ! $conditions->held => Reason::Conditions,
            $heldBefore => Reason::NoTurn,
            $used => Reason::GuardHeld,
            default => Reason::Fires,
        };

        return new Verdict(
            $reason,
            $this->sentence($reason, $rule, $type, $conditions),
            $this->trigger($type, $change, $display),
            $triggered,
            $conditions,
            $this->guard($rule, $type, $change, $heldBefore, $used),
            ! $heldBefore && ! $used,
        );
    }

    private function sentence(Reason $reason, Rule $rule, RecordType $type, Finding $conditions): string
    {
        return match ($reason) {
            Reason::Fires => 'The rule fires.',
            Reason::Trigger => "The rule did not fire: it starts when the {$type->inSentence()} {$this->wanted($rule, $type)}, and this was another change.",
            Reason::Conditions => 'The rule did not fire: '.$this->firstMiss($conditions).'.',
            Reason::NoTurn => 'The rule did not fire: its conditions already held before this change, and it fires when they become true.',
            Reason::GuardHeld => "The rule did not fire: it fires once per {$type->inSentence()}, and has fired for this one before.",
        };
    }

    private function wanted(Rule $rule, RecordType $type): string
    {
        $fields = array_map(static fn (string $name): string => $type->field($name)->label ?? $name, $rule->trigger->onChangeOf() ?? []);

        return $rule->trigger::label().($fields === [] ? '' : ' in '.implode(' or ', $fields));
    }

    /** The first condition that spoils the whole, with what it saw. */
    private function firstMiss(Finding $finding): string
    {
        foreach ($finding->parts as $part) {
            if (! $part->held && $finding->text === 'all of') {
                return $this->firstMiss($part);
            }
        }
        if ($finding->parts !== []) {
            return $finding->text === 'none of' ? 'a condition held that must not' : 'none of its alternatives held';
        }

        return "‘{$finding->text}’ does not hold, the value is {$finding->seen}";
    }

    private function trigger(RecordType $type, Change $change, Display $display): string
    {
        if ($change->before === null) {
            return "{$type->label} created";
        }
        $parts = [];
        foreach ($change->fields() as $name) {
            $field = $type->field($name);
            if ($field !== null) {
                $parts[] = "{$field->label} changed from {$display->of($field, $change->before->value($name))} to {$display->of($field, $change->record()->value($name))}";
            }
        }

        return $parts === [] ? 'Nothing changed' : implode(', ', $parts);
    }

    private function guard(Rule $rule, RecordType $type, Change $change, bool $heldBefore, bool $used): string
    {
        $state = match (true) {
            $used => 'used up',
            $heldBefore => 'they already held before this change',
            $rule->guard->wantsTurn() => $change->before === null ? 'the record is new' : 'they did not hold before this change',
            $rule->guard->remembers() => 'not used yet',
            default => 'always ready',
        };

        return "{$rule->guard::label($type)}: {$state}";
    }
}

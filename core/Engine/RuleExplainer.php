<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Condition\Finding;
use VividLedger\Facts\Facts;
use VividLedger\Facts\GuardState;
use VividLedger\Facts\View;
use VividLedger\Record\Change;
use VividLedger\Record\Display;
use VividLedger\Record\EventKind;
use VividLedger\Rule\Rule;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;
use VividLedger\Words\Words;

/** Judges a rule as the engine does, but keeps what it saw: for entries, and for "why not?". */
final readonly class RuleExplainer
{
    public function __construct(private Schema $schema, private \DateTimeZone $zone)
    {
    }

    /**
     * @param  View  $view  the record as the rule saw it, which is the change's "after" unless earlier rules had set fields
     * @param  ?string  $forestalled  name of the rule of the same either/or set that was the first to match
     */
    public function examine(Rule $rule, RecordType $type, Change $change, View $view, ?string $forestalled = null): Verdict
    {
        $display = new Display($view->facts, $this->zone);
        $view = new View($view->record, $view->facts, $change);
        $triggered = $rule->isStartedBy($change, $view->facts);
        $conditions = $rule->condition->explain($view, $display);
        $heldBefore = false;
        $occasion = $triggered ? $rule->trigger->occasionOf($change, $view->facts) : null;
        if ($rule->guard->wantsTurn() && $change->event === null && $occasion === null) {
            $before = $rule->before($change, $view->record, $view->facts, $this->schema);
            $heldBefore = $before !== null && $rule->holds($before);
        }
        [$used, $state] = $this->used($rule, $view, $change, $occasion);
        $reason = match (true) {
            ! $triggered => Reason::Trigger,
            $forestalled !== null => Reason::Forestalled,
            ! $conditions->held => Reason::Conditions,
            $heldBefore => Reason::NoTurn,
            $used => Reason::GuardHeld,
            default => Reason::Fires,
        };

        return new Verdict(
            reason: $reason, sentence: $this->sentence($reason, $rule, $type, $change, $conditions, $forestalled),
            trigger: $this->trigger($change, $view->facts), triggered: $triggered, conditions: $conditions,
            guard: $this->guard($rule, $change, $heldBefore, $used, $state), ready: ! $heldBefore && ! $used,
        );
    }

    /** @return array{bool, string} whether the guard holds the rule back, and what it has let pass */
    private function used(Rule $rule, View $view, Change $change, ?string $occasion): array
    {
        if (! $rule->guard->remembers() && $occasion === null) {
            return [false, ''];
        }
        $record = $view->record;
        $state = $view->facts->guardState($rule->id, $record->type, $record->id);
        if ($state->count > 0 && $rule->isReadyAgain($change, $view->facts)) {
            $state = new GuardState($state->epoch + 1);
        }
        $isUsed = static fn (string $key): bool => $view->facts->guardHeld($rule->id, $record->type, $record->id, $state->epoch, $key);
        $fired = match ($state->count) {
            0 => Words::say('not used yet'),
            1 => Words::say('used once'),
            default => Words::say('used {count} times', count: $state->count),
        };

        $isOver = $occasion !== null && $isUsed($rule->guard->key($record, $occasion, $state));

        return [$isOver || ($rule->guard->remembers() && $rule->guard->holdsBack($state, $record, $view->facts->now(), $isUsed)), $fired];
    }

    private function sentence(
        Reason $reason,
        Rule $rule,
        RecordType $type,
        Change $change,
        Finding $conditions,
        ?string $forestalled,
    ): string {
        $other = $change->event?->kind->comesOnce() === true ? "; {$change->event->text}" : Words::say(', and this was another change');

        return match ($reason) {
            Reason::Fires => Words::say('The rule fires.'),
            Reason::Trigger => str_replace(' ’s', '’s', Words::say(
                'The rule did not fire: it starts when the {record} {wanted}{other}.',
                record: Words::within($type->label),
                wanted: $rule->trigger->wanted(),
                other: $other,
            )),
            Reason::Forestalled => Words::say(
                'The rule did not fire: ‘{forestalled}’ of the same either/or set took it, which is narrower, or stands before it.',
                forestalled: (string) $forestalled,
            ),
            Reason::Conditions => Words::say('The rule did not fire: {miss}.', miss: $conditions->miss()),
            Reason::NoTurn => Words::say('The rule did not fire: its conditions already held before this change, and it fires when they '
                .'become true.'),
            Reason::GuardHeld => Words::say(
                'The rule did not fire: it fires {wording}, and has fired for this one before.',
                wording: $rule->guard->wording(),
            ),
        };
    }

    /** What the change was, as a person reads it. */
    private function trigger(Change $change, Facts $facts): string
    {
        $record = $change->record();
        $type = $this->schema->type($record->type);
        if ($type === null) {
            return Words::say('A record changed');
        }
        if ($change->event !== null) {
            return match ($change->event->kind) {
                EventKind::Comment => Words::say(
                    'Comment on the {record}: “{event}”',
                    record: Words::within($type->label),
                    event: mb_strimwidth($change->event->text, 0, 80, '…'),
                ),
                EventKind::File => Words::say(
                    'File on the {record}: {event}',
                    record: Words::within($type->label),
                    event: $change->event->text,
                ),
                EventKind::TaskDone => Words::say('Task done: “{event}”', event: $change->event->text),
                EventKind::SignedOff => Words::say('Sign-off: {event}', event: $change->event->text),
                EventKind::SlipAnswered => Words::say('Reply slip: “{event}”', event: mb_strimwidth($change->event->text, 0, 80, '…')),
                EventKind::Reply => Words::say('Reply: “{event}”', event: mb_strimwidth($change->event->text, 0, 80, '…')),
                EventKind::HookBrought => Words::say('Brought by the hook “{from}”', from: $change->event->from),
                EventKind::ByHand => Words::say('Run by hand'),
                EventKind::DateArrived, EventKind::FellQuiet, EventKind::CameRound => $change->event->text,
                EventKind::LineDue, EventKind::SeatSigned, EventKind::StepSigned, EventKind::SlipOver,
                EventKind::CallEnded => $change->event->text,
                EventKind::PutInForce => Words::say('It matched when the rule was put in force'),
            };
        }
        if ($change->before === null) {
            return Words::say('{type} created', type: $type->label);
        }
        if ($change->after === null) {
            return Words::say('{type} deleted', type: $type->label);
        }
        $display = new Display($facts, $this->zone);
        $parts = [];
        foreach ($change->fields() as $name) {
            $field = $type->field($name);
            if ($field !== null) {
                $parts[] = Words::say(
                    '{field} changed from {before} to {after}',
                    field: $field->label,
                    before: $display->of($field, $change->before->value($name)),
                    after: $display->of($field, $record->value($name)),
                );
            }
        }

        return $parts === [] ? Words::say('Nothing changed') : implode(', ', $parts);
    }

    private function guard(Rule $rule, Change $change, bool $heldBefore, bool $used, string $fired): string
    {
        $state = match (true) {
            $used => Words::say('used up'),
            $heldBefore => Words::say('they already held before this change'),
            $rule->guard->wantsTurn() => $change->before === null
                ? Words::say('the record is new')
                : Words::say('they did not hold before this change'),
            $rule->guard->remembers() => $fired,
            default => Words::say('always ready'),
        };

        return "{$rule->guard->wording()}: {$state}";
    }
}

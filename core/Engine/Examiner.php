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

/** Judges a rule as the engine does, but keeps what it saw: for entries, and for "why not?". */
final readonly class Examiner
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
            $reason,
            $this->sentence($reason, $rule, $type, $change, $conditions, $forestalled),
            $this->trigger($change, $view->facts),
            $triggered,
            $conditions,
            $this->guard($rule, $change, $heldBefore, $used, $state),
            ! $heldBefore && ! $used,
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
            0 => 'not used yet',
            1 => 'used once',
            default => "used {$state->count} times",
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
        $other = $change->event?->kind->comesOnce() === true ? "; {$change->event->text}" : ', and this was another change';

        return match ($reason) {
            Reason::Fires => 'The rule fires.',
            Reason::Trigger => str_replace(
                ' ’s',
                '’s',
                "The rule did not fire: it starts when the {$type->inSentence()} {$rule->trigger->wanted()}{$other}.",
            ),
            Reason::Forestalled => "The rule did not fire: ‘{$forestalled}’ of the same either/or set took it, which is narrower, "
                .'or stands before it.',
            Reason::Conditions => 'The rule did not fire: '.$conditions->miss().'.',
            Reason::NoTurn => 'The rule did not fire: its conditions already held before this change, and it fires when they become true.',
            Reason::GuardHeld => "The rule did not fire: it fires {$rule->guard->wording()}, and has fired for this one before.",
        };
    }

    /** What the change was, as a person reads it. */
    private function trigger(Change $change, Facts $facts): string
    {
        $record = $change->record();
        $type = $this->schema->type($record->type);
        if ($type === null) {
            return 'A record changed';
        }
        if ($change->event !== null) {
            return match ($change->event->kind) {
                EventKind::Comment => "Comment on the {$type->inSentence()}: “".mb_strimwidth($change->event->text, 0, 80, '…').'”',
                EventKind::File => "File on the {$type->inSentence()}: {$change->event->text}",
                EventKind::TaskDone => "Task done: “{$change->event->text}”",
                EventKind::SignedOff => "Sign-off: {$change->event->text}",
                EventKind::SlipAnswered => 'Reply slip: “'.mb_strimwidth($change->event->text, 0, 80, '…').'”',
                EventKind::Reply => 'Reply: “'.mb_strimwidth($change->event->text, 0, 80, '…').'”',
                EventKind::HookBrought => "Brought by the hook “{$change->event->from}”",
                EventKind::ByHand => 'Run by hand',
                EventKind::DateArrived, EventKind::FellQuiet, EventKind::CameRound => $change->event->text,
                EventKind::LineDue, EventKind::StepSigned, EventKind::SlipOver,
                EventKind::CallEnded => $change->event->text,
                EventKind::PutInForce => 'It matched when the rule was put in force',
            };
        }
        if ($change->before === null) {
            return "{$type->label} created";
        }
        if ($change->after === null) {
            return "{$type->label} deleted";
        }
        $display = new Display($facts, $this->zone);
        $parts = [];
        foreach ($change->fields() as $name) {
            $field = $type->field($name);
            if ($field !== null) {
                $parts[] = "{$field->label} changed from {$display->of($field, $change->before->value($name))} to "
                    ."{$display->of($field, $record->value($name))}";
            }
        }

        return $parts === [] ? 'Nothing changed' : implode(', ', $parts);
    }

    private function guard(Rule $rule, Change $change, bool $heldBefore, bool $used, string $fired): string
    {
        $state = match (true) {
            $used => 'used up',
            $heldBefore => 'they already held before this change',
            $rule->guard->wantsTurn() => $change->before === null ? 'the record is new' : 'they did not hold before this change',
            $rule->guard->remembers() => $fired,
            default => 'always ready',
        };

        return "{$rule->guard->wording()}: {$state}";
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Facts\Facts;
use VividLedger\Record\Change;
use VividLedger\Record\EventKind;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** Somebody runs the rule, on one record or on a selection. Conditions and repeat guard hold all the same. */
final readonly class ByHand extends OwnTrigger
{
    public static function kind(): string
    {
        return 'by_hand';
    }

    public static function label(): string
    {
        return EventKind::ByHand->label();
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->opens(Triggers::chooser(...))->apart('subject', 'byHand')->says('{subject} '.self::label())->orSaid(
            '(run|started) (by hand|manually|on demand)[ only]',
            '(someone|somebody) (runs|starts) it',
            '(someone|somebody|anyone|anybody|a person|I|we|one|you) (runs|starts|run|start|launches|triggers) (it|the rule|this '
                .'rule|this)( by hand| manually| on {subject} by hand|)',
            '(by hand|manually|only by hand|on demand|by hand only)', '{subject} is (run|started|triggered) (manually|by hand|on demand)',
            '(it|the rule|this rule) is (run|started) (by hand|manually|on demand)',
            '(someone|somebody) (runs|starts) (it|the rule) (for|on) {subject}',
        )->slot('subject', new Subject);
    }

    public static function read(Context $context, Node $node): ?self
    {
        return self::shape()->read($context, $node) === null ? null : new self($context->type->name);
    }

    public function watch(): Watch
    {
        return new Watch($this->type, events: [EventKind::ByHand]);
    }

    public function accepts(Change $change, Facts $facts): bool
    {
        return $change->event?->kind === EventKind::ByHand;
    }

    public function opening(Proposal $proposal): Opening
    {
        return $proposal->opening(OpeningKind::ByHand);
    }
}

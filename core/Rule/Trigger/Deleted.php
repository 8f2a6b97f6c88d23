<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Facts\Facts;
use VividLedger\Record\Change;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Always;

/** The record is no more. The rule sees it as it last was. */
final readonly class Deleted extends OwnTrigger
{
    public static function kind(): string
    {
        return 'deleted';
    }

    public static function label(): string
    {
        return 'is deleted';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->opens(Triggers::chooser(...))->apart('subject', 'byHand')
            ->says('{subject} is deleted[, or by hand{byHand}]')->orSaid(
                '{subject} (is|was|gets|has been) (deleted|removed|erased|thrown away|binned)[, or by hand{byHand}]',
                '(someone|somebody|anyone|anybody) (deletes|removes|erases) {subject}[, or by hand{byHand}]',
                '(on|after|at|upon) (deletion|removal|the deletion|the removal) of {subject}[, or by hand{byHand}]',
                '{subject} (disappears|goes away)[, or by hand{byHand}]',
                '(on|after|upon|at) [the ]deletion',
                'after {subject} (is|was|has been) (deleted|removed)',
                'deleting {subject}',
            )->slot('subject', new Subject)->slot('byHand', new Always);
    }

    public static function read(Context $context, Node $node): ?self
    {
        return self::shape()->read($context, $node) === null ? null : new self($context->type->name);
    }

    public function watch(): Watch
    {
        return new Watch($this->type, deleted: true);
    }

    public function accepts(Change $change, Facts $facts): bool
    {
        return $change->after === null;
    }

    public function opening(Proposal $proposal): Opening
    {
        return $proposal->opening(OpeningKind::Deleted);
    }
}

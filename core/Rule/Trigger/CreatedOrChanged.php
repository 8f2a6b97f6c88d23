<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Facts\Facts;
use VividLedger\Record\Change;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Always;

/** Any save of the record that changes something, the first included. */
final readonly class CreatedOrChanged extends OwnTrigger
{
    public static function kind(): string
    {
        return 'created_or_changed';
    }

    public static function label(): string
    {
        return 'is created or changed';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->opens(Triggers::chooser(...))->apart('subject', 'byHand')
            ->says('{subject} is created or changed[, or by hand{byHand}]')->orSaid(
                '{subject} (is|was|gets|has been) (saved|created or edited|created or updated|added or changed|added or edited|made or '
                    .'changed|changed or created|'
                    .'edited or created|new or changed|written|stored|created or modified|added or updated|'
                    .'updated or created|made or edited|made or updated|opened or changed)[, or by '
                        .'hand{byHand}]',
                '(someone|somebody|anyone|anybody) (saves|creates or changes|creates or edits|adds or changes|adds or edits) '
                    .'{subject}[, or by hand{byHand}]',
                '(on|at|with|after|upon) (every|each|any|) save[ of {subject}][, or by hand{byHand}]',
                '{subject} is saved[ in any way| at all][, or by hand{byHand}]', '[after |on |upon ]saving {subject}',
                '{subject} is (new or changes|new or is changed)',
            )->slot('subject', new Subject)->slot('byHand', new Always);
    }

    public static function read(Context $context, Node $node): ?self
    {
        return self::shape()->read($context, $node) === null ? null : new self($context->type->name);
    }

    public function watch(): Watch
    {
        return new Watch($this->type, created: true, fields: null);
    }

    public function accepts(Change $change, Facts $facts): bool
    {
        return $change->after !== null && $change->event === null;
    }

    public function opening(Proposal $proposal): Opening
    {
        return $proposal->turned() ?? $proposal->opening(OpeningKind::Created);
    }
}

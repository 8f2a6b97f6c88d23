<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Facts\Facts;
use VividLedger\Record\Change;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Always;

/** The record did not exist before. */
final readonly class Created extends OwnTrigger
{
    public static function kind(): string
    {
        return 'created';
    }

    public static function label(): string
    {
        return 'is created';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->opens(Triggers::chooser(...))->apart('subject', 'byHand')
            ->says('{subject} is created[, or by hand{byHand}]')->orSaid(
                '{subject} (is|gets|was|has been|has just been|is newly|is being|has) (added|made|opened|entered|created|new|raised|'
                    .'logged|registered|set up|born)[, or by hand{byHand}]',
                '(someone|somebody|anyone|a person|anybody|a user|one of us|a colleague) (creates|adds|makes|opens|enters|raises|logs) '
                    .'{subject}[, or by hand{byHand}]',
                '(on |with |for |at |)[every |each |any ]{fresh}[ (comes in|arrives|appears|is there|is created|is added|is made|is '
                    .'opened|is entered)][, or by hand{byHand}]',
                '(on|at|after|upon) creation of {subject}[, or by hand{byHand}]',
                '{subject} (comes in|arrives|appears|comes into being)[, or by hand{byHand}]',
                '(there is|there’s) {fresh}[, or by hand{byHand}]',
                'after {subject} (is|was|has been) (created|added|made|opened)',
                '[after ]creating {subject}', '{subject} (come in|arrive|appear|are created|are added)',
                '[on |after |at |upon ]the creation of {subject}', '(on|after|upon|at) creation',
            )->slot('subject', new Subject)->slot('byHand', new Always)->slot('fresh', new Subject('new'));
    }

    public static function read(Context $context, Node $node): ?self
    {
        return self::shape()->read($context, $node) === null ? null : new self($context->type->name);
    }

    public function watch(): Watch
    {
        return new Watch($this->type, created: true);
    }

    public function accepts(Change $change, Facts $facts): bool
    {
        return $change->before === null;
    }

    public function opening(Proposal $proposal): Opening
    {
        return $proposal->opening(OpeningKind::Created);
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\OneShape;
use VividLedger\Shape\WordedAs;
use VividLedger\Words\Words;

/** Whom a slip is passed on to when its time has run out. A new kind is a new file and one line here. */
final readonly class NextSlot extends WordedAs
{
    /** @var list<class-string<NextInLine>> */
    public const ALL = [NextRecord::class, NextInTeam::class];

    public function read(Context $context, Node $node, Filled $around): ?NextInLine
    {
        foreach (self::ALL as $kind) {
            if ($kind::kind() === $node->kind()) {
                return $kind::read($context, $node);
            }
        }

        return $context->gap('to whom?', $node->at, self::editor(), 'missing', Words::say('Choose to whom it is passed on.'));
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        if ($around->raw('within') !== null) {
            $context->more('+ pass on', $node->at, self::editor());
        }
    }

    protected function slot(): OneShape
    {
        return Kinds::once(self::class, static fn (): OneShape => new OneShape(
            static fn (): array => array_map(static fn (string $kind): Shape => $kind::shape(), self::ALL),
            'next_in_line',
        ));
    }

    private static function editor(): Editor
    {
        return Editor::choose('When time runs out', static fn (): array => [
            new Offer('leave it at that', null),
            ...array_map(static fn (string $kind): Offer => new Offer($kind::label(), $kind::shape()->begun()), self::ALL),
        ]);
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\People\Who;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Slot\Always;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** That a list for a person comes by the clock and calendar of that person, and not by the company’s. */
final readonly class OwnClock extends WordedAs
{
    private const OWN = 'person';

    public function read(Context $context, Node $node, Filled $around): ?bool
    {
        if ($around->any('per', Who::class) === null) {
            return $context->problem(
                $node->at,
                'wrong_type',
                Words::say('The clock of each person goes with lists that are put together for a person.'),
            );
        }
        if ($node->text() !== self::OWN) {
            return $context->gap(
                $node->text() ?? '?',
                $node->at,
                self::editor(),
                'wrong_type',
                Words::say('Time is told by the company’s clock, or by each person’s own.'),
            );
        }
        $context->word('by each one’s own clock', WordRole::Value, $node->at, self::editor());

        return true;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        if ($around->any('per', Who::class) !== null) {
            $context->more('+ by their own clock', $node->at, self::editor());
        }
    }

    private static function editor(): Editor
    {
        return Editor::choose('By whose clock', static fn (): array => [
            new Offer('by each one’s own clock and calendar', self::OWN), new Offer('by the company’s', null),
        ]);
    }

    protected function slot(): Always
    {
        return new Always(self::OWN);
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Slot\Always;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** That the open tasks of whoever gets a list stand on it too. */
final readonly class TheirTasks extends WordedAs
{
    public function read(Context $context, Node $node, Filled $around): bool
    {
        $isParted = $around->any('by', Field::class) !== null;
        if ($node->raw === true && ! $isParted) {
            $context->problem(
                $node->at,
                'wrong_type',
                Words::say('Tasks stand on a list by when they are due: choose the date of the records too.'),
            );
        }
        $editor = Editor::choose('Their tasks', static fn (): array => [
            new Offer('and their open tasks', true), new Offer('without their tasks', null),
        ]);
        if ($node->raw === true) {
            $context->word('; and their open tasks', WordRole::Value, $node->at, $editor);
        } elseif ($isParted) {
            $context->more('+ their tasks', $node->at, $editor);
        }

        return $node->raw === true;
    }

    protected function slot(): Always
    {
        return new Always;
    }
}

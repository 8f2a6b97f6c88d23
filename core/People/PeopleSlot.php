<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Slot\Many;
use VividLedger\Shape\WordedAs;
use VividLedger\Words\Words;

/** Several people, each found in some way: "the owner’s manager and the creator". */
final readonly class PeopleSlot extends WordedAs
{
    public function __construct(private int $most)
    {
    }

    /** @return ?list<Who> */
    public function read(Context $context, Node $node, Filled $around): ?array
    {
        $items = $node->items();
        $people = [];
        foreach ($items === [] ? [$node->child('0')] : $items as $index => $item) {
            if ($index > 0) {
                $context->glue($index === count($items) - 1 ? 'and' : ',');
            }
            $people[] = PersonExpressions::word($context, $item);
        }
        if (count($items) > $this->most) {
            return $context->problem($node->at, 'too_many', Words::say('At most {most} people.', most: $this->most));
        }
        if ($items !== [] && count($items) < $this->most) {
            $next = Editor::choose('Who', static fn (): array => PersonExpressions::offers($context));
            $context->more('+', "{$node->at}/".count($items), $next);
        }
        $found = array_values(array_filter($people));

        return count($found) === count($people) ? $found : null;
    }

    protected function slot(): Many
    {
        return new Many(new PersonSlot, 'and', most: $this->most);
    }
}

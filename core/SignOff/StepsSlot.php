<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Slot\Series;
use VividLedger\Shape\WordedAs;

/** The steps of a route, one after another: "the owner’s manager; then Ulla Verne, within 3 days". */
final readonly class StepsSlot extends WordedAs
{
    public const MOST = 10;

    public function read(Context $context, Node $node, Filled $around): ?Route
    {
        $items = $node->items();
        $steps = [];
        foreach ($items === [] ? [$node->child('0')] : $items as $index => $item) {
            if ($index > 0) {
                $context->glue('; then');
            }
            $steps[] = RouteStep::read($context, $item);
        }
        if (count($items) > self::MOST) {
            return $context->problem($node->at, 'too_many', 'A route has at most '.self::MOST.' steps.');
        }
        if ($items !== []) {
            $context->more('+ then', "{$node->at}/".count($items), Editor::begin(RouteStep::BEGUN));
        }
        $sound = array_values(array_filter($steps));

        return $sound === [] || count($sound) < count($steps) ? null : new Route($sound);
    }

    protected function slot(): Series
    {
        return new Series(
            RouteStep::shape(),
            1,
            self::MOST,
            joint: 'then',
            alsoJoint: ',?\s*(?:and\s+)?(?:then|afterwards|after that)\b(?:\s+(?:by|from)\b)?',
        );
    }
}

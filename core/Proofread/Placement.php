<?php

declare(strict_types=1);

namespace VividLedger\Proofread;

use VividLedger\Condition\Condition;
use VividLedger\Condition\Group;
use VividLedger\Shape\Node;

/** Finds the place in the rule file that a condition was read from: the file and the conditions are trees of one shape. */
final class Placement
{
    /**
     * @return list<array{Condition, string}> every condition that is no group, with its place (a JSON Pointer)
     */
    public static function of(Condition $condition, Node $node): array
    {
        $items = $node->child('of')->items();
        if (! $condition instanceof Group) {
            return [[$condition, $node->at]];
        }
        $placed = [];
        foreach ($condition->parts as $index => $part) {
            if (isset($items[$index])) {
                array_push($placed, ...self::of($part, $items[$index]));
            }
        }

        return $placed;
    }
}

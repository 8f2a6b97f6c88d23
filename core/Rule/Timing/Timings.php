<?php

declare(strict_types=1);

namespace VividLedger\Rule\Timing;

use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\OneShape;

/** All timings, in the order they are offered. A new one is a new file and one line here. */
final class Timings
{
    /** @var list<class-string<Timing>> */
    public const ALL = [After::class, AtDate::class, WhenTasksDone::class, WhenTasksLate::class, Every::class];

    /** A time of a line, in words. */
    public static function slot(): OneShape
    {
        static $slot = null;

        return $slot instanceof OneShape ? $slot : $slot = new OneShape(static fn (): array => array_map(
            static fn (string $timing): Shape => $timing::shape(),
            self::ALL,
        ), 'timing');
    }

    /** @return Timing|false|null null for at once, false when it cannot be read */
    public static function read(Context $context, Node $node): Timing|false|null
    {
        if ($node->isMissing()) {
            return null;
        }
        foreach (self::ALL as $timing) {
            if ($timing::kind() === $node->kind()) {
                return $timing::read($context, $node) ?? false;
            }
        }
        $context->problem($node->at, 'unknown_timing', 'Choose when this line is done.');

        return false;
    }
}

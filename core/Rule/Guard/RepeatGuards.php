<?php

declare(strict_types=1);

namespace VividLedger\Rule\Guard;

use VividLedger\Condition\Condition;
use VividLedger\Condition\ConditionReader;
use VividLedger\Shape\Context;
use VividLedger\Shape\Edit;
use VividLedger\Shape\Node;

/** All repeat guards, in the order they are offered. A new guard is a new file and one line here. */
final class RepeatGuards
{
    /** @var list<class-string<RepeatGuard>> */
    public const ALL = [
        BecomesTrue::class, EveryTime::class, OncePerRecord::class, OncePerValue::class, OnceInPeriod::class, SoManyTimes::class,
    ];

    public static function read(Context $context, Node $node): ?RepeatGuard
    {
        foreach (self::ALL as $guard) {
            if ($guard::kind() === $node->kind()) {
                return $guard::read($context, $node);
            }
        }

        return $context->gap(
            'choose how often',
            $node->at,
            Edit::Guard,
            'unknown_guard',
            'Choose how often the rule may fire for one record.',
        );
    }

    /** What makes a used guard ready again; null when nothing does, or it is unfinished and the problem is noted. */
    public static function again(Context $context, Node $node, ?RepeatGuard $guard): ?Condition
    {
        $again = $node->child('again');
        if ($guard === null || ! $guard->remembers()) {
            return $again->isMissing() ? null : $context->problem(
                $again->at,
                'wrong_type',
                'Only a guard that is used up can be made ready again.',
            );
        }
        if ($again->isMissing()) {
            $context->more('+ ready again when', $again->at, Edit::Where);

            return null;
        }
        $context->glue(', ready again when');

        return ConditionReader::read($context, $again, '', 1);
    }
}

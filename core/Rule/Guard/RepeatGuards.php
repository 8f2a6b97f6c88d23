<?php

declare(strict_types=1);

namespace VividLedger\Rule\Guard;

use VividLedger\Condition\Condition;
use VividLedger\Condition\ConditionReader;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Words\Words;

/** All repeat guards, in the order they are offered. A new guard is a new file and one line here. */
final class RepeatGuards
{
    /** @var list<class-string<RepeatGuard>> */
    public const ALL = [
        BecomesTrue::class, EveryTime::class, OncePerRecord::class, OncePerValue::class, OnceInPeriod::class, SoManyTimes::class,
    ];

    /** @return list<class-string<RepeatGuard>> */
    public static function all(): array
    {
        return Kinds::all(self::class, self::ALL);
    }

    public static function chooser(Context $context, Node $node): Editor
    {
        return Editor::choose('Fires', static fn (): array => array_map(static fn (string $guard): Offer => new Offer(
            $guard::label($context->type),
            $guard::shape()->begun($context, $node),
            isChosen: $guard::kind() === $node->kind(),
        ), self::all()));
    }

    public static function read(Context $context, Node $node): ?RepeatGuard
    {
        foreach (self::all() as $guard) {
            if ($guard::kind() === $node->kind()) {
                return $guard::read($context, $node);
            }
        }

        return $context->gap(
            'choose how often',
            $node->at,
            self::chooser($context, $node),
            'unknown_guard',
            Words::say('Choose how often the rule may fire for one record.'),
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
                Words::say('Only a guard that is used up can be made ready again.'),
            );
        }
        if ($again->isMissing()) {
            $context->more('+ ready again when', $again->at, Editor::conditions());

            return null;
        }
        $context->glue(', ready again when');

        return ConditionReader::read($context, $again, '', 1);
    }
}

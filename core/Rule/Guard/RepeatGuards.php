<?php

declare(strict_types=1);

namespace VividLedger\Rule\Guard;

use VividLedger\Rule\Reading\Context;
use VividLedger\Rule\Reading\Edit;
use VividLedger\Rule\Reading\Node;
use VividLedger\Rule\Reading\WordRole;

/** All repeat guards, in the order they are offered. A new guard is a new file and one line here. */
final class RepeatGuards
{
    /** @var list<class-string<RepeatGuard>> */
    public const ALL = [BecomesTrue::class, EveryTime::class, OncePerRecord::class];

    public static function read(Context $context, Node $node): ?RepeatGuard
    {
        foreach (self::ALL as $guard) {
            if ($guard::kind() === $node->kind()) {
                $context->word($guard::label($context->type), WordRole::Value, $node->at, Edit::Guard);

                return new $guard;
            }
        }

        return $context->gap('choose how often', $node->at, Edit::Guard, 'unknown_guard', 'Choose how often the rule may fire for one record.');
    }
}

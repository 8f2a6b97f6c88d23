<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Shape\Context;
use VividLedger\Shape\Edit;
use VividLedger\Shape\Node;

/** All triggers, in the order they are offered. A new trigger is a new file and one line here. */
final class Triggers
{
    /** @var list<class-string<Trigger>> */
    public const ALL = [
        Created::class, CreatedOrChanged::class, Changed::class, Deleted::class, RelatedChanged::class,
        DateArrives::class, FallsQuiet::class, ComesRound::class,
        CommentArrived::class, ReplyArrived::class, FileArrived::class, TaskCompleted::class, ByHand::class,
    ];

    public static function read(Context $context, Node $node): ?Trigger
    {
        foreach (self::ALL as $trigger) {
            if ($trigger::kind() === $node->kind()) {
                return $trigger::read($context, $node);
            }
        }

        return $context->gap('choose when', $node->at, Edit::Trigger, 'unknown_trigger', 'Choose what starts the rule.');
    }
}

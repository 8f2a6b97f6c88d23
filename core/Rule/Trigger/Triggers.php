<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Words\Words;

/** All triggers, in the order they are offered. A new trigger is a new file and one line here. */
final class Triggers
{
    /** @var list<class-string<Trigger>> */
    public const ALL = [
        Created::class, CreatedOrChanged::class, Changed::class, Deleted::class, RelatedChanged::class,
        DateArrives::class, FallsQuiet::class, ComesRound::class,
        CommentArrived::class, ReplyArrived::class, SlipAnswered::class, FileArrived::class, TaskCompleted::class,
        HookBrings::class, ByHand::class,
    ];

    /** @return list<class-string<Trigger>> */
    public static function all(): array
    {
        return Kinds::all(self::class, self::ALL);
    }

    public static function chooser(Context $context, Node $node): Editor
    {
        return Editor::choose('A '.$context->type->inSentence(), static fn (): array => array_map(
            static fn (string $trigger): Offer => self::offer($trigger, $context, $node),
            self::all(),
        ));
    }

    /** @param  class-string<Trigger>  $trigger */
    private static function offer(string $trigger, Context $context, Node $node): Offer
    {
        return new Offer($trigger::label(), $trigger::shape()->begun($context, $node), isChosen: $trigger::kind() === $node->kind());
    }

    public static function read(Context $context, Node $node): ?Trigger
    {
        foreach (self::all() as $trigger) {
            if ($trigger::kind() === $node->kind()) {
                return $trigger::read($context, $node);
            }
        }

        return $context->gap('choose when', $node->at, self::chooser($context, $node), 'unknown_trigger', Words::say(
            'Choose what starts the rule.',
        ));
    }
}

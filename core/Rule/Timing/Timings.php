<?php

declare(strict_types=1);

namespace VividLedger\Rule\Timing;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\OneShape;
use VividLedger\Shape\Way;
use VividLedger\Words\Words;

/** All timings, in the order they are offered. A new one is a new file and one line here. */
final class Timings
{
    /** @var list<class-string<Timing>> */
    public const ALL = [
        After::class, AtDate::class, WhenTasksDone::class, WhenTasksLate::class, WhenSignedOff::class, WhenStepAgreed::class,
        WhenPeopleAgree::class,
        WhenSlipAnswered::class, WhenSlipRunsOut::class, WhenCalled::class, OnceTrue::class,
        Every::class,
    ];

    /** A time of a line, in words. */
    public static function slot(): OneShape
    {
        return Kinds::once(self::class, static fn (): OneShape => new OneShape(static fn (): array => array_map(
            static fn (string $timing): Shape => $timing::shape(),
            self::all(),
        ), 'timing'));
    }

    /** @return list<class-string<Timing>> */
    public static function all(): array
    {
        return Kinds::all(self::class, self::ALL);
    }

    /** All ways to say when a line is done; at once is none of them. */
    public static function form(Context $context, int $place): Editor
    {
        return Editor::form('When', static fn (): array => [
            new Way('at once', null),
            ...array_merge(...array_map(static fn (string $timing): array => $timing::ways($context, $place), self::all())),
        ], clears: ['tooLate']);
    }

    /** @return Timing|false|null null for at once, false when it cannot be read */
    public static function read(Context $context, Node $node): Timing|false|null
    {
        if ($node->isMissing()) {
            return null;
        }
        foreach (self::all() as $timing) {
            if ($timing::kind() === $node->kind()) {
                return $timing::read($context, $node) ?? false;
            }
        }
        $context->problem($node->at, 'unknown_timing', Words::say('Choose when this line is done.'));

        return false;
    }
}

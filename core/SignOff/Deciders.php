<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Words\Words;

/** All ways to say whom a step asks, in the order they are offered. A new one is a new file and one line here. */
final class Deciders
{
    /** @var list<class-string<Approvers>> */
    public const ALL = [NamedPeople::class, LevelsUp::class, UpToLimit::class, TeamAtWork::class, RoleAtWork::class];

    /** @return list<class-string<Approvers>> */
    public static function all(): array
    {
        return Kinds::all(self::class, self::ALL);
    }

    public static function chooser(Context $context, Node $node): Editor
    {
        return Editor::choose('Who decides', static fn (): array => array_map(
            static fn (string $one): Offer => self::offer($one, $context, $node),
            self::all(),
        ));
    }

    public static function read(Context $context, Node $node): ?Approvers
    {
        foreach (self::all() as $approvers) {
            if ($approvers::kind() === $node->kind()) {
                return $approvers::read($context, $node);
            }
        }

        return $context->gap('choose who', $node->at, self::chooser($context, $node), 'missing', Words::say(
            'Choose who decides at this step.',
        ));
    }

    /** @param  class-string<Approvers>  $approvers */
    private static function offer(string $approvers, Context $context, Node $node): Offer
    {
        return new Offer(
            $approvers::label(),
            $approvers::shape()->begun($context, $node),
            isChosen: $approvers::kind() === $node->kind(),
        );
    }
}

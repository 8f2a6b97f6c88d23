<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Facts\View;
use VividLedger\People\TeamSlot;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** Everybody at work in a team. */
final readonly class TeamAtWork implements Approvers
{
    public function __construct(private string $team)
    {
    }

    public static function kind(): string
    {
        return 'team';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->opens(Deciders::chooser(...))->says('everybody in {team}')
            ->orSaid('(everyone|all|all people|the whole team) (in|of) {team}', 'the {team} team', '{team}')->slot('team', new TeamSlot);
    }

    public static function label(): string
    {
        return 'a team';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new self($read->text('team'));
    }

    public function people(View $view): array
    {
        return $view->facts->team($this->team);
    }

    public function followsTree(): bool
    {
        return false;
    }

    public function most(): null
    {
        return null;
    }
}

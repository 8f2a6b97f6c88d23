<?php

declare(strict_types=1);

namespace VividLedger\Rule\Recipient;

use VividLedger\Message\Channel;
use VividLedger\People\TeamName;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;

/** Everybody at work in a team. */
final readonly class ToTeam implements Recipient
{
    private function __construct(private string $team)
    {
    }

    public static function kind(): string
    {
        return 'team';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('everybody in {team}')->orSaid(
            '(everyone|everybody|all|all people|all members|each member|the whole team|the team|the members|all) (in|of|at|from) {team}',
            'the whole {team}', 'all of {team}', 'the {team}',
        )->slot('team', new TeamName);
    }

    public static function read(Context $context, Node $node): ?self
    {
        $team = TeamName::of($context, $node);

        return $team === null ? null : new self($team);
    }

    public static function offers(Context $context): array
    {
        return array_map(static function (string $team) use ($context): Offer {
            $one = ['kind' => self::kind(), 'team' => $team];

            return new Offer($context->said(self::shape(), $one), $one, 'Teams');
        }, $context->directory->teams());
    }

    public function reach(ActionContext $performance, Channel $channel): Reached
    {
        $addresses = [];
        foreach ($performance->facts->team($this->team) as $person) {
            $addresses[] = ToPerson::address($person, $channel);
        }
        $addresses = array_values(array_filter($addresses));

        return new Reached($addresses, $addresses === [] ? "nobody in {$this->team} can be reached" : "team {$this->team}");
    }
}

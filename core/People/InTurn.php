<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Facts\View;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** The next of a team: each takes a turn, in a fixed order. Whoever performs the line marks the turn as taken. */
final readonly class InTurn implements PersonExpression
{
    public function __construct(public string $team)
    {
    }

    public static function kind(): string
    {
        return 'in_turn';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('the next of {team} in turn')->orSaid(
            'the next (person|one|colleague|member) [in turn ](of|in|from) {team}[ in turn]', 'the next in turn (of|in|from) {team}',
            'the next (in|from) {team}[ in turn]', '(somebody|someone) (of|in|from) {team} in turn',
            '{team} (in turn|by turns|round robin)',
            'whoever is next in {team}', 'the next of {team}',
        )->slot('team', new TeamName);
    }

    public static function read(Context $context, Node $node): ?self
    {
        $team = TeamName::of($context, $node);

        return $team === null ? null : new self($team);
    }

    public function find(View $view): Found
    {
        $team = $view->facts->team($this->team);
        $last = $view->facts->lastInTurn($this->team) ?? 0;
        foreach ($team as $person) {
            if ($person->id > $last) {
                return new Found($person, "next of {$this->team} in turn: {$person->name}", $this->team);
            }
        }
        $person = $team[0] ?? null;

        return new Found(
            $person,
            $person === null ? "nobody is at work in {$this->team}" : "next of {$this->team} in turn: {$person->name}",
            $this->team,
        );
    }

    public function route(): null
    {
        return null;
    }
}

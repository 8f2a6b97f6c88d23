<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Facts\View;
use VividLedger\House\Person;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** The one of a team with the fewest open tasks; of several, the first. */
final readonly class LeastLoaded implements PersonExpression
{
    public function __construct(private string $team)
    {
    }

    public static function kind(): string
    {
        return 'least_loaded';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('the least loaded of {team}')->orSaid(
            'the least (busy|loaded) (person |one |colleague |member |)(of|in|from) {team}',
            '(whoever|the one|the person) (of|in|from) {team} (with|who has|has) the (fewest|least) [open ](tasks|work)',
            '(whoever|the one|the person) (with|who has|has) the (fewest|least) [open ](tasks|work) (of|in|from) {team}',
            'whoever (of|in|from) {team} is least (busy|loaded)', 'whoever is least (busy|loaded) (of|in|from) {team}',
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
        $open = $view->facts->openTasks(array_map(static fn (Person $person): int => $person->id, $team));
        $best = null;
        foreach ($team as $person) {
            if ($best === null || ($open[$person->id] ?? 0) < ($open[$best->id] ?? 0)) {
                $best = $person;
            }
        }

        return new Found(
            $best,
            $best === null ? "nobody is at work in {$this->team}"
                : "{$best->name} has the fewest open tasks of {$this->team}: ".($open[$best->id] ?? 0),
        );
    }

    public function route(): null
    {
        return null;
    }
}

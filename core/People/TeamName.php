<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Shape\Context;
use VividLedger\Shape\Json;
use VividLedger\Shape\Node;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;
use VividLedger\Words\Words;

/** A team by its name. */
final readonly class TeamName implements Slot
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return is_string($json) && in_array($json, self::all($scope), true) ? $json : null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $teams = self::all($scope);

        return array_map(
            static fn (array $found): Parsed => new Parsed($found[0], $typed->words($found[1], 'team', 3) ?? $found[1]),
            $typed->labels($at, array_combine($teams, $teams)),
        );
    }

    public function schema(): array
    {
        return Json::text();
    }

    /** @return list<string> names of the teams there are, asked once for a reading */
    public static function all(Scope $scope): array
    {
        return $scope->once('teams', static fn (): array => $scope->directory->teams());
    }

    /** The team that a rule file names under "team"; null, with the problem noted, when there is none of that name. */
    public static function of(Context $context, Node $node): ?string
    {
        $team = $node->child('team')->text() ?? '';

        return in_array($team, self::all($context->scope()), true) ? $team
            : $context->problem($node->at, 'unknown_team', Words::say('There is no team ‘{team}’.', team: $team));
    }
}

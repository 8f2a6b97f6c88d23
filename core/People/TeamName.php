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

/** A team by its name. */
final readonly class TeamName implements Slot
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return is_string($json) && in_array($json, $scope->directory->teams(), true) ? $json : null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $teams = $scope->once('teams', static fn (): array => $scope->directory->teams());

        return array_map(
            static fn (array $found): Parsed => new Parsed($found[0], $typed->words($found[1], 'team', 3) ?? $found[1]),
            $typed->labels($at, array_combine($teams, $teams)),
        );
    }

    public function schema(): array
    {
        return Json::text();
    }

    /** The team that a rule file names under "team"; null, with the problem noted, when there is none of that name. */
    public static function of(Context $context, Node $node): ?string
    {
        $team = $node->child('team')->text() ?? '';

        return in_array($team, $context->directory->teams(), true) ? $team
            : $context->problem($node->at, 'unknown_team', "There is no team ‘{$team}’.");
    }
}

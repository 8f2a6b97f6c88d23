<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Shape\Json;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\Typed;

/** A route that is kept in Setup, by its name, in quotes or without. */
final readonly class RouteName implements Slot
{
    public const LENGTH = 60;

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return (new Quoted)->print($json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $routes = self::all($scope);

        return [
            ...(new Quoted)->parse($typed, $at, $scope, $around),
            ...array_map(
                static fn (array $found): Parsed => new Parsed($found[0], $found[1], 1),
                $typed->labels($at, array_combine($routes, $routes), 1),
            ),
        ];
    }

    /** @return list<string> names of the routes there are, asked once for a reading */
    public static function all(Scope $scope): array
    {
        return $scope->once('routes', static fn (): array => $scope->directory->routes($scope->type->name));
    }

    public function schema(): array
    {
        return Json::text(self::LENGTH);
    }
}

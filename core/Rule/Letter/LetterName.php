<?php

declare(strict_types=1);

namespace VividLedger\Rule\Letter;

use VividLedger\Shape\Json;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\Typed;

/** A letter that is kept in Setup for the record type, by its name in quotes. */
final readonly class LetterName implements Slot
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return (new Quoted)->print($json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $known = [];
        foreach ($scope->once('letters', static fn (): array => $scope->directory->letters($scope->type->name)) as $name) {
            $known[mb_strtolower($name)] = $name;
        }
        $found = [];
        foreach ((new Quoted)->parse($typed, $at, $scope, $around) as $one) {
            $name = is_string($one->json) ? ($known[mb_strtolower(trim($one->json))] ?? null) : null;
            if ($name !== null) {
                $found[] = $one->as($name);
            }
        }

        return $found;
    }

    public function schema(): array
    {
        return Json::text();
    }
}

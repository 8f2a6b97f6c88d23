<?php

declare(strict_types=1);

namespace VividLedger\Rule\Slip;

use VividLedger\Shape\Json;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\Typed;

/** A slip that is kept in Setup for the record type, by its name in quotes. */
final readonly class SlipName implements Slot
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return (new Quoted)->print($json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $slips = $scope->once('slips', static fn (): array => $scope->directory->slips($scope->type->name));
        $known = array_combine(array_map(mb_strtolower(...), $slips), $slips);
        $found = [];
        foreach ((new Quoted)->parse($typed, $at, $scope, $around) as $one) {
            $found[] = is_string($one->json) ? $one->as($known[mb_strtolower(trim($one->json))] ?? $one->json) : $one;
        }

        return $found;
    }

    public function schema(): array
    {
        return Json::text();
    }
}

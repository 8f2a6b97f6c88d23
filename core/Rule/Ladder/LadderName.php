<?php

declare(strict_types=1);

namespace VividLedger\Rule\Ladder;

use VividLedger\Shape\Json;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\Typed;

/** A ladder that is kept in Setup, by its name, in quotes or without. */
final readonly class LadderName implements Slot
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return (new Quoted)->print($json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $ladders = $scope->once('ladders', static fn (): array => $scope->directory->ladders());

        return [
            ...(new Quoted)->parse($typed, $at, $scope, $around),
            ...array_map(
                static fn (array $found): Parsed => new Parsed($found[0], $typed->words($found[1], 'ladder', 3) ?? $found[1], 1),
                $typed->labels($at, array_combine($ladders, $ladders), 1),
            ),
        ];
    }

    public function schema(): array
    {
        return Json::text(60);
    }
}

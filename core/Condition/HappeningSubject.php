<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\DateField;
use VividLedger\Shape\Spread;
use VividLedger\Shape\Typed;

/** A date of the record by what happens on it: "it is due", "the agreement ends". */
final readonly class HappeningSubject implements Spread
{
    public function keys(): array
    {
        return ['field'];
    }

    /** It is only heard, never printed. */
    public function print(mixed $json, Scope $scope, array $around): null
    {
        return null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return array_map(
            static fn (Parsed $one): Parsed => new Parsed(['field' => $one->json], $one->end, 1),
            (new DateField)->parse($typed, $at, $scope, $around),
        );
    }
}

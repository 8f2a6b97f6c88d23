<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\OnlyHeard;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\DateField;
use VividLedger\Shape\Typed;

/** A date of the record by what happens on it: "it is due", "the agreement ends". */
final readonly class HappeningSubject implements MultiKeySlot
{
    use OnlyHeard;

    public function keys(): array
    {
        return ['field'];
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return array_map(
            static fn (Parsed $one): Parsed => new Parsed(['field' => $one->json], $one->end, 1),
            (new DateField)->parse($typed, $at, $scope, $around),
        );
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\People\NamedPerson;
use VividLedger\People\PersonSlot;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** A person who is found; one who is named is rather the value of the field. */
final readonly class FoundPersonSlot implements Slot
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return is_array($json) && ($json['kind'] ?? null) === NamedPerson::kind() ? null : (new PersonSlot)->print($json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return array_values(array_filter(
            (new PersonSlot)->parse($typed, $at, $scope, $around),
            static fn (Parsed $one): bool => ! is_array($one->json) || ($one->json['kind'] ?? null) !== NamedPerson::kind(),
        ));
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Shape\Json;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** A person who is found; one who is named is rather a value. */
final readonly class FoundPersonSlot implements Slot
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return is_array($json) && ($json['kind'] ?? null) === NamedPerson::kind() ? null : (new PersonSlot)->print($json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        // "Owner" by itself is rather the field than whoever is in it.
        $isBare = preg_match('/^(?:the|its|whoever|who)(?![\p{L}\p{N}])/iu', $typed->rest($at)) !== 1;
        $found = [];
        foreach ((new PersonSlot)->parse($typed, $at, $scope, $around) as $one) {
            if (! is_array($one->json) || ($one->json['kind'] ?? null) !== NamedPerson::kind()) {
                $found[] = $one->costlier($isBare ? 1 : 0);
            }
        }

        return $found;
    }

    public function schema(): array
    {
        return Json::ref('person');
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\People\PersonSlot;
use VividLedger\Shape\Json;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\Typed;

/** Who or what made a change: a person, a rule, an import, or whomever a person expression finds. */
final readonly class DoerSlot implements Slot
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return is_string($json) ? (MadeBy::WAYS[$json] ?? null) : (new PersonSlot)->print($json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return [
            ...Labels::of(array_flip(MadeBy::WAYS), ['somebody' => 'person', 'someone' => 'person', 'another rule' => 'rule'])
                ->parse($typed, $at, $scope, $around),
            ...(new PersonSlot)->parse($typed, $at, $scope, $around),
        ];
    }

    public function schema(): array
    {
        return [
            'type' => ['string', 'object'], 'if' => ['type' => 'string'], 'then' => ['enum' => array_keys(MadeBy::WAYS)],
            'else' => Json::ref('person'),
        ];
    }
}

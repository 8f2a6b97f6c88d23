<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Shape\Json;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\FieldValue;
use VividLedger\Shape\Typed;

/** A value of the field that is set. */
final readonly class ValueToSet implements Slot
{
    /** @param  bool  $isMember  whether it is one of the values of a set */
    public function __construct(private bool $isMember = false)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return $scope->field === null ? null : FieldValue::ofField($scope->field)->print($json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return $scope->field === null ? [] : FieldValue::ofField($scope->field)->parse($typed, $at, $scope, $around);
    }

    public function schema(): array
    {
        return $this->isMember ? Json::text() : Json::ref('value');
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** What another slot spreads over keys, as an object of its own. */
final readonly class InObject implements Slot
{
    public function __construct(private MultiKeySlot $slot)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return is_array($json) && array_diff(
            array_keys($json),
            $this->slot->keys(),
        ) === [] ? $this->slot->print($json, $scope, $around) : null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return $this->slot->parse($typed, $at, $scope, $around);
    }

    public function schema(): array
    {
        return $this->slot->schema();
    }
}

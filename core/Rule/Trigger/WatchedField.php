<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Schema\Field;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\OnlyHeard;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\OwnField;
use VividLedger\Shape\Typed;

/** The one field that is watched, {"fields"}: "the status", "the status of a ticket". */
final readonly class WatchedField implements MultiKeySlot
{
    use OnlyHeard;

    public function keys(): array
    {
        return ['fields'];
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return array_map(
            static fn (Parsed $one): Parsed => $one->as(['fields' => [$one->json]]),
            (new OwnField(static fn (Field $field): bool => ! $field->system))->parse($typed, $at, $scope, $around),
        );
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Schema\Field;
use VividLedger\Shape\Json;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** A date along a path: "Due", "the due date", "the customer’s next contact", "it is due". */
final readonly class MomentPath implements Slot
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return (new FieldPath)->print($json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return Parsed::distinct([
            ...(new FieldPath(static fn (Field $field): bool => $field->type->isMoment()))->parse($typed, $at, $scope, $around),
            ...(new DateField)->parse($typed, $at, $scope, $around),
        ]);
    }

    public function schema(): array
    {
        return Json::ref('path');
    }
}

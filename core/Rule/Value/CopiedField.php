<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Schema\Field;
use VividLedger\Shape\Json;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\FieldPath;
use VividLedger\Shape\Typed;

/** A field whose value the field that is set can hold. */
final readonly class CopiedField implements Slot
{
    /** @param  bool  $isBare  whether it stands without an article */
    public function __construct(private bool $isBare = false)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return (new FieldPath)->print($json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return (new FieldPath(
            static fn (Field $from): bool => $scope->field === null || CopiedValue::alike($from, $scope->field),
            $this->isBare,
        ))->parse($typed, $at, $scope, $around);
    }

    public function schema(): array
    {
        return Json::ref('path');
    }
}

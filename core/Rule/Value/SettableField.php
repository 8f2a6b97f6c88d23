<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Json;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\OwnField;
use VividLedger\Shape\Typed;

/** A field of the record that can become what a kind of value gives. */
final readonly class SettableField implements Slot
{
    /** @param  class-string<AssignedValue>  $value */
    public function __construct(private string $value, private ?FieldType $type = null)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return (new OwnField)->print($json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return (new OwnField($this->fits(...)))->parse($typed, $at, $scope, $around);
    }

    public function fits(Field $field): bool
    {
        return $field->isSettable() && $this->value::fits($field) && ($this->type === null || $field->type === $this->type);
    }

    public function schema(): array
    {
        return Json::NAME;
    }
}

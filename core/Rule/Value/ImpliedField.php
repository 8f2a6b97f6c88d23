<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\OnlyHeard;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;

/** The field that is meant without being said: each of the record’s own that fits is a reading. */
final readonly class ImpliedField implements MultiKeySlot
{
    use OnlyHeard;

    /** @param  class-string<AssignedValue>  $value */
    public function __construct(private string $value, private ?FieldType $type = null)
    {
    }

    public function keys(): array
    {
        return ['field'];
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $fields = array_filter($scope->type->fields, (new SettableField($this->value, $this->type))->fits(...));

        return array_map(
            static fn (Field $field): Parsed => new Parsed(['field' => $field->name], $at, 1),
            array_values($fields),
        );
    }
}

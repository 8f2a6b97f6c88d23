<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Schema\Choice;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\OnlyHeard;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\Slot\Many;
use VividLedger\Shape\Typed;

/** Several choices of one field by their labels alone, {"field", "values"}: "high or urgent" are priorities. */
final readonly class ImpliedChoices implements MultiKeySlot
{
    use OnlyHeard;

    public function keys(): array
    {
        return ['field', 'values'];
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        foreach ($scope->type->fields as $field) {
            if ($field->type !== FieldType::Choice) {
                continue;
            }
            $labels = array_column(array_map(static fn (Choice $choice): array => [$choice->label, $choice->value], $field->choices), 1, 0);
            foreach ((new Many(Labels::of($labels), 'or', 2))->parse($typed, $at, $scope, []) as $list) {
                $found[] = new Parsed(['field' => $field->name, 'values' => $list->json], $list->end, 1);
            }
        }

        return $found;
    }
}

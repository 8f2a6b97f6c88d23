<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Schema\FieldType;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\OnlyHeard;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;

/** A choice by its label alone, {"field", "value"}: "urgent" is the priority. Every field that offers it is a reading. */
final readonly class ImpliedChoice implements MultiKeySlot
{
    use OnlyHeard;

    /** Says of what was read that its field was not said. */
    public const MARK = 'implied';

    public function keys(): array
    {
        return ['field', 'value'];
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return $typed->once("choice:{$scope->type->name}", $at, static function () use ($typed, $at, $scope): array {
            $found = [];
            foreach ($scope->type->fields as $field) {
                foreach ($field->type === FieldType::Choice ? $field->choices : [] as $choice) {
                    foreach ($typed->labels($at, [$choice->label => $choice->value], 1) as [$value, $end]) {
                        // "Urgent priority" says the field besides.
                        $end = $typed->words($end, $field->label, 3) ?? $end;
                        $found[] = new Parsed(['' => self::MARK, 'field' => $field->name, 'value' => $value], $end, 1);
                    }
                }
            }

            return $found;
        });
    }
}

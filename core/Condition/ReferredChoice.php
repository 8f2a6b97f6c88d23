<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\OnlyHeard;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\OwnField;
use VividLedger\Shape\Typed;

/** A choice of a record that is referred to, by its label alone, {"field", "value"}: "the customer is on full care". */
final readonly class ReferredChoice implements MultiKeySlot
{
    use OnlyHeard;

    private const SAID = ['is', 'is on', 'has', 'is in', 'is at', 'on', 'with', 'is on the', 'has the', 'on the'];

    public function keys(): array
    {
        return ['field', 'value'];
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        foreach ([...OwnField::all($typed, $at, $scope), ...self::many($typed, $at, $scope)] as $reference) {
            $name = is_string($reference->json) ? $reference->json : '';
            $type = $scope->schema->behind($scope->type->field($name));
            foreach ($type === null ? [] : self::SAID as $said) {
                $behind = $typed->words($reference->end, $said, 3);
                foreach ($behind === null ? [] : (new ImpliedChoice)->parse($typed, $behind, $scope->about($type), []) as $choice) {
                    $json = is_array($choice->json) ? $choice->json : [];
                    $field = is_string($json['field'] ?? null) ? $json['field'] : '';
                    $label = $type?->field($field)->label ?? '';
                    // "The full care plan" says the field besides.
                    $end = $typed->words($choice->end, $label, 3) ?? $choice->end;
                    $found[] = new Parsed(['field' => "{$name}.{$field}", 'value' => $json['value'] ?? ''], $end, 1);
                }
            }
        }

        return Parsed::distinct($found);
    }

    /** @return list<Parsed> references by what they refer to, when many are talked of: "customers on full care" */
    private static function many(Typed $typed, int $at, Scope $scope): array
    {
        $found = [];
        foreach ($scope->type->ownFields() as $field) {
            $type = $field->target === null ? null : $scope->schema->behind($field);
            $end = $type === null ? null : $typed->words($at, $type->plural, 3);
            if ($end !== null) {
                $found[] = new Parsed($field->name, $end, 1);
            }
        }

        return $found;
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Shape\OnlyHeard;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\OwnField;
use VividLedger\Shape\Spread;
use VividLedger\Shape\Typed;

/** A choice of a record that is referred to, by its label alone, {"field", "value"}: "the customer is on full care". */
final readonly class ReferredChoice implements Spread
{
    use OnlyHeard;

    public function keys(): array
    {
        return ['field', 'value'];
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        foreach (OwnField::all($typed, $at, $scope) as $reference) {
            $name = is_string($reference->json) ? $reference->json : '';
            $type = $scope->schema->behind($scope->type->field($name));
            foreach ($type === null ? [] : ['is', 'is on', 'has', 'is in', 'is at'] as $said) {
                $behind = $typed->words($reference->end, $said, 3);
                foreach ($behind === null ? [] : (new ImpliedChoice)->parse($typed, $behind, $scope->about($type), []) as $choice) {
                    $json = is_array($choice->json) ? $choice->json : [];
                    $field = is_string($json['field'] ?? null) ? $json['field'] : '';
                    $found[] = new Parsed(['field' => "{$name}.{$field}", 'value' => $json['value'] ?? ''], $choice->end, 1);
                }
            }
        }

        return Parsed::distinct($found);
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Condition\ImpliedChoice;
use VividLedger\Rule\Value\FixedValue;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\OnlyHeard;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\OwnField;
use VividLedger\Shape\Typed;

/**
 * A field of a record that this one refers to, with what it is set to, {"on", "set"}: "the status of the customer to active",
 * "the customer status to active", "status to active on the customer", "the customer active".
 */
final readonly class SetElsewhere implements MultiKeySlot
{
    use OnlyHeard;

    public function keys(): array
    {
        return ['on', 'set'];
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        foreach ($scope->type->ownFields() as $reference) {
            $type = $reference->type === FieldType::Reference ? $scope->schema->behind($reference) : null;
            foreach ($type === null ? [] : $this->of($typed, $at, $scope, $type, $reference->label) as $set) {
                $found[] = new Parsed(['on' => $reference->name, 'set' => $set->json], $set->end, $set->cost + 1);
            }
        }

        return Parsed::distinct($found);
    }

    /** @return list<Parsed> what is set */
    private function of(Typed $typed, int $at, Scope $scope, RecordType $type, string $label): array
    {
        $slot = new AssignmentsSlot(static fn (): RecordType => $type);
        $bare = new AssignmentsSlot(static fn (): RecordType => $type, isBare: true);
        $found = [];
        $its = $typed->words($at, "{$label}’s", 3) ?? $typed->words($at, $label, 3);
        if ($its !== null) {
            $found = [...$slot->parse($typed, $its, $scope, []), ...$bare->parse($typed, $its, $scope, [])];
            $as = $typed->words($its, 'as', 3) ?? $typed->words($its, 'to', 3) ?? $its;
            foreach ((new ImpliedChoice)->parse($typed, $as, $scope->about($type), []) as $choice) {
                $json = is_array($choice->json) ? $choice->json : [];
                $found[] = $choice->as([
                    ['field' => $json['field'] ?? '', 'to' => ['kind' => FixedValue::kind(), 'value' => $json['value'] ?? '']],
                ]);
            }
        }
        foreach (OwnField::all($typed, $at, $scope->about($type)) as $field) {
            $of = $typed->words($field->end, "of the {$label}", 3);
            $name = is_string($field->json) ? $type->field($field->json) : null;
            foreach ($of === null || $name === null ? [] : $slot->valued($typed, $of, $scope, $name) as $set) {
                $found[] = $set->as([$set->json]);
            }
        }
        foreach ($slot->parse($typed, $at, $scope, []) as $set) {
            $on = $typed->words($set->end, "on the {$label}", 3) ?? $typed->words($set->end, "of the {$label}", 3);
            if ($on !== null) {
                $found[] = new Parsed($set->json, $on, $set->cost);
            }
        }

        return $found;
    }
}

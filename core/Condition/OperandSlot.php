<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Condition\Given\Givens;
use VividLedger\Condition\Operator\Operand;
use VividLedger\Condition\Operator\Operator;
use VividLedger\Condition\Operator\PersonOperator;
use VividLedger\Schema\Field;
use VividLedger\Shape\Json;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\FieldValue;
use VividLedger\Shape\Slot\Length;
use VividLedger\Shape\Slot\LengthOf;
use VividLedger\Shape\Slot\Many;
use VividLedger\Shape\Typed;

/** What a comparison compares with: a value of the field, several, an amount of time, or what is found when it is judged. */
final readonly class OperandSlot implements Slot
{
    /** @param  int  $least  how many of several */
    public function __construct(private Operator $operator, private int $least = 1)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        $field = $this->compared($around, $scope);
        if ($field === null) {
            return null;
        }
        if (is_array($json) && isset($json['kind'])) {
            foreach ($this->given($field) as $given) {
                $text = $given->print($json, $scope->with($field), []);
                if ($text !== null) {
                    return $text;
                }
            }
        }

        return $this->plain($field)->print($json, $scope, []);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $field = $this->compared($around, $scope);
        if ($field === null) {
            return [];
        }
        $found = $this->plain($field)->parse($typed, $at, $scope, []);
        foreach ($this->given($field) as $given) {
            array_push($found, ...$given->parse($typed, $at, $scope->with($field), []));
        }

        return $found;
    }

    public function schema(): array
    {
        return match (true) {
            $this->operator->operand() === Operand::Span => (new Length)->schema(),
            $this->operator->operand() === Operand::Many => ['type' => 'array', 'minItems' => 1, 'items' => Json::ref('value')],
            $this->operator instanceof PersonOperator => Json::text(),
            default => Json::ref($this->operator->ofNothing() === null ? 'value' : 'given'),
        };
    }

    /** @param  array<mixed>  $around */
    private function compared(array $around, Scope $scope): ?Field
    {
        $field = SubjectSlot::field($around, $scope);

        return $field !== null && $this->operator instanceof PersonOperator ? $this->operator->compared($field) : $field;
    }

    private function plain(Field $field): Slot
    {
        $value = FieldValue::ofField($field);

        return match ($this->operator->operand()) {
            Operand::Many => new Many($value, 'or', $this->least, 'and'),
            Operand::Span => new LengthOf(inDays: true),
            default => $value,
        };
    }

    /** @return list<Slot> */
    private function given(Field $field): array
    {
        if ($this->operator->operand() !== Operand::One || $this->operator->ofNothing() === null) {
            return [];
        }

        return array_map(static fn (string $given): Slot => $given::shape(), Givens::fitting($field));
    }
}

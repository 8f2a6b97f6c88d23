<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\Given\Given;
use VividLedger\Condition\OperandSlot;
use VividLedger\Condition\Order;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\SubjectSlot;
use VividLedger\Facts\View;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Readable;
use VividLedger\Shape\Shape;

/** The value the field had before the change; without a change it is the value it has. A new record had none. */
final class Was implements ChangeOperator
{
    use TurnsAtOperands;

    public function kind(): string
    {
        return 'was';
    }

    public function shape(): Shape
    {
        return Shape::of($this->kind())->says('{left} was {value}')
            ->orSaid('{left} (used to be|was previously|had been|was before|previously was) {value}', '{left} was {value} before')
            ->slot('left', SubjectSlot::fitting($this))->slot('value', new OperandSlot($this));
    }

    public function fits(FieldType $type): bool
    {
        return $type->isNamed() || $type->isDecimal();
    }

    public function operand(): Operand
    {
        return Operand::One;
    }

    public function ofNothing(): ?bool
    {
        return null;
    }

    public function test(Field $field, array $operands): Closure
    {
        return (new Is)->test($field, $operands);
    }

    public function judge(Field $field, array $operands): Closure
    {
        $is = (new Is)->test($field, $operands);

        return static function (View $view) use ($field, $is): bool {
            $change = $view->ownChange();

            return $is($change === null ? $view->record->value($field->name) : $change->before?->value($field->name));
        };
    }

    public function query(QueryWriter $writer, Readable $left, array $operands): mixed
    {
        $operand = $operands[0];

        return $writer->compare(
            $left,
            Order::Equal,
            $operand instanceof Given ? throw new \LogicException('Was compares with a value.') : $operand,
        );
    }

    public function ofEmpty(): ?bool
    {
        return null;
    }

    public function asksChange(): bool
    {
        return false;
    }
}

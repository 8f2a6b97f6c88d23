<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Brick\Math\BigDecimal;
use Closure;
use VividLedger\Condition\ImpliedChoice;
use VividLedger\Condition\OperandSlot;
use VividLedger\Condition\Order;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\ReferredChoice;
use VividLedger\Condition\ReferredSubject;
use VividLedger\Condition\SubjectSlot;
use VividLedger\Record\Fold;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Readable;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;

/** Equal: text without regard to case, numbers by amount. */
final class Is implements Operator
{
    use TurnsAtOperands;

    public function kind(): string
    {
        return 'is';
    }

    public function shape(): Shape
    {
        return Shape::of($this->kind())->says('{left} is {value}')->orSaid(
            '{there}',
            '{left} (=|==|:|equals|is equal to|is set to|is the same as|is exactly|is now|is on|is at|is in) {value}',
            '{left} (must|has to|should|needs to) be {value}',
            '{left}[ is| of] {value}',
            '{choice}', 'is {choice}', '(it is|it’s|the record is|this is|{} is) {choice}', '{on} {value}',
            'with [a |]{left} [of |]{value}',
            '(it|{}) (must|has to|should|needs to) be {choice}', '[any |a |an |only ]{choice} ({}|one|ones)',
        )->slot('left', SubjectSlot::fitting($this))->slot('value', new OperandSlot($this))->slot('choice', new ImpliedChoice)
            ->slot('there', new ReferredChoice)->slot('on', new ReferredSubject)->slot('', new ItsType);
    }

    public function fits(FieldType $type): bool
    {
        return $type !== FieldType::Tick && $type !== FieldType::LongText && ! $type->isSet();
    }

    public function operand(): Operand
    {
        return Operand::One;
    }

    public function ofNothing(): ?bool
    {
        return false;
    }

    public function test(Field $field, array $operands): Closure
    {
        $wanted = $operands[0];
        if ($field->type->isText()) {
            $folded = Fold::text((string) $wanted);

            return static fn (string|int|bool|null $value): bool => $value !== null && Fold::text((string) $value) === $folded;
        }
        if ($field->type->isDecimal()) {
            $amount = BigDecimal::of((string) $wanted);

            return static fn (string|int|bool|null $value): bool => $value !== null && $amount->isEqualTo((string) $value);
        }

        return static fn (string|int|bool|null $value): bool => $value === $wanted;
    }

    public function query(QueryWriter $writer, Readable $left, array $operands): mixed
    {
        return $writer->compare($left, Order::Equal, $operands[0]);
    }
}

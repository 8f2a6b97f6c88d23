<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\Order;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\SubjectSlot;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Readable;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;

/** A tick box that is ticked. Seen over a reference that is empty there is no box at all, which is not ticked. */
final class Ticked implements Operator
{
    use TurnsAtOperands;

    public function kind(): string
    {
        return 'ticked';
    }

    public function shape(): Shape
    {
        return Shape::of($this->kind())->says('{left} is ticked')->orSaid(
            '{left} (ticked|checked)',
            '(it|{}) is (marked as|flagged as|flagged) {left}',
            '{left} (is|=|:|equals|==|is set to) (checked|on|true|yes|set|active|ticked|done)', '(it is|it’s|{} is|is) {left}',
            '{left} has been (ticked|set|checked)',
            '{left} [tick |box ]is (set|there|active)', '{left} has [a |the |its ]tick', 'with {left} (ticked|set|on)', '{left}',
        )->slot('left', SubjectSlot::fitting($this))->slot('', new ItsType);
    }

    public function fits(FieldType $type): bool
    {
        return $type === FieldType::Tick;
    }

    public function operand(): Operand
    {
        return Operand::Nothing;
    }

    public function ofNothing(): ?bool
    {
        return null;
    }

    public function test(Field $field, array $operands): Closure
    {
        return static fn (string|int|bool|null $value): bool => $value === true;
    }

    public function query(QueryWriter $writer, Readable $left, array $operands): mixed
    {
        return $writer->compare($left, Order::Equal, true);
    }
}

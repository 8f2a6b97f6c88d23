<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\ImpliedChoices;
use VividLedger\Condition\OperandSlot;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\SubjectSlot;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Readable;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;
use VividLedger\Shape\Slot\Keyed;

/** One of several named values. */
final class OneOf implements Operator
{
    use TurnsAtOperands;

    public function kind(): string
    {
        return 'one_of';
    }

    public function shape(): Shape
    {
        return Shape::of($this->kind())->says('{left} is one of {values}')->orSaid(
            '{left} (is |)in \\({values}\\)',
            '{left} (is |)(either|any of|in|one of|among|any one of) {values}', '{left} (is|=) {several}', '{left}: {several}',
            '{left} equals (one of|any of|either) {values}', '{left} {several}',
            '[it is |it’s |is |{} is ][either ]{choices}',
        )->slot('left', SubjectSlot::fitting($this))->slot('values', new OperandSlot($this))
            ->slot('several', new Keyed('values', new OperandSlot($this, 2)))
            ->slot('choices', new ImpliedChoices)->slot('', new ItsType);
    }

    public function fits(FieldType $type): bool
    {
        return $type->isNamed();
    }

    public function operand(): Operand
    {
        return Operand::Many;
    }

    public function ofNothing(): ?bool
    {
        return null;
    }

    public function test(Field $field, array $operands): Closure
    {
        return static fn (string|int|bool|null $value): bool => $value !== null && in_array($value, $operands, true);
    }

    public function query(QueryWriter $writer, Readable $left, array $operands): mixed
    {
        return $writer->oneOf(
            $left,
            array_values(array_filter($operands, static fn (mixed $operand): bool => is_string($operand) || is_int($operand))),
        );
    }
}

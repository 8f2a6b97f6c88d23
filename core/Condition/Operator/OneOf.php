<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\Readable;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;

/** One of several named values. */
final class OneOf implements Operator
{
    public function kind(): string
    {
        return 'one_of';
    }

    public function fits(FieldType $type): bool
    {
        return $type->isNamed();
    }

    public function label(FieldType $type): string
    {
        return 'is one of';
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

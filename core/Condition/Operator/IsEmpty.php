<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\Readable;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;

/** Nothing is filled in. */
final class IsEmpty implements Operator
{
    public function kind(): string
    {
        return 'is_empty';
    }

    public function fits(FieldType $type): bool
    {
        return $type !== FieldType::Tick;
    }

    public function label(FieldType $type): string
    {
        return 'is empty';
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
        return static fn (string|int|bool|null $value): bool => $value === null;
    }

    public function query(QueryWriter $writer, Readable $left, array $operands): mixed
    {
        return $writer->isEmpty($left);
    }
}

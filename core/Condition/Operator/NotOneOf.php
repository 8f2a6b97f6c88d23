<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\QueryWriter;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;

/** The opposite of "is one of", and so true for an empty value. */
final class NotOneOf implements Operator
{
    public function kind(): string
    {
        return 'not_one_of';
    }

    public function fits(FieldType $type): bool
    {
        return $type->isNamed();
    }

    public function label(FieldType $type): string
    {
        return 'is none of';
    }

    public function operand(): Operand
    {
        return Operand::Many;
    }

    public function test(Field $field, array $operands): Closure
    {
        $oneOf = (new OneOf)->test($field, $operands);

        return static fn (string|int|bool|null $value): bool => ! $oneOf($value);
    }

    public function query(QueryWriter $writer, Path $path, array $operands): mixed
    {
        return $writer->none([(new OneOf)->query($writer, $path, $operands)]);
    }
}

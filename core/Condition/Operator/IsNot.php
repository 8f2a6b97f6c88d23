<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\Order;
use VividLedger\Condition\QueryWriter;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;

/** The opposite of "is", and so true for an empty value. */
final class IsNot implements Operator
{
    public function kind(): string
    {
        return 'is_not';
    }

    public function fits(FieldType $type): bool
    {
        return (new Is)->fits($type);
    }

    public function label(FieldType $type): string
    {
        return 'is not';
    }

    public function operand(): Operand
    {
        return Operand::One;
    }

    public function test(Field $field, array $operands): Closure
    {
        $is = (new Is)->test($field, $operands);

        return static fn (string|int|bool|null $value): bool => ! $is($value);
    }

    public function query(QueryWriter $writer, Path $path, array $operands): mixed
    {
        return $writer->none([$writer->compare($path, Order::Equal, $operands[0])]);
    }
}

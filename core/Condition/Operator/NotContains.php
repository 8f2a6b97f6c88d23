<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\QueryWriter;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;

/** The opposite of "contains", and so true for an empty value. */
final class NotContains implements Operator
{
    public function kind(): string
    {
        return 'not_contains';
    }

    public function fits(FieldType $type): bool
    {
        return $type->isText();
    }

    public function label(FieldType $type): string
    {
        return 'does not contain';
    }

    public function operand(): Operand
    {
        return Operand::One;
    }

    public function test(Field $field, array $operands): Closure
    {
        $contains = (new Contains)->test($field, $operands);

        return static fn (string|int|bool|null $value): bool => ! $contains($value);
    }

    public function query(QueryWriter $writer, Path $path, array $operands): mixed
    {
        return $writer->none([$writer->contains($path, (string) $operands[0])]);
    }
}

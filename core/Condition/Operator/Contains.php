<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\QueryWriter;
use VividLedger\Record\Fold;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;

/** Text that has another text in it, without regard to case. */
final class Contains implements Operator
{
    public function kind(): string
    {
        return 'contains';
    }

    public function fits(FieldType $type): bool
    {
        return $type->isText();
    }

    public function label(FieldType $type): string
    {
        return 'contains';
    }

    public function operand(): Operand
    {
        return Operand::One;
    }

    public function test(Field $field, array $operands): Closure
    {
        $part = Fold::text((string) $operands[0]);

        return static fn (string|int|bool|null $value): bool => $value !== null && str_contains(Fold::text((string) $value), $part);
    }

    public function query(QueryWriter $writer, Path $path, array $operands): mixed
    {
        return $writer->contains($path, (string) $operands[0]);
    }
}

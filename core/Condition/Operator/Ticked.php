<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\Order;
use VividLedger\Condition\QueryWriter;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;

/**
 * A tick box that is, or is not, ticked. Seen over a reference that is empty there is no box at all, which counts as
 * not ticked.
 */
final class Ticked implements Operator
{
    public function __construct(private readonly bool $ticked)
    {
    }

    public function kind(): string
    {
        return $this->ticked ? 'ticked' : 'not_ticked';
    }

    public function fits(FieldType $type): bool
    {
        return $type === FieldType::Tick;
    }

    public function label(FieldType $type): string
    {
        return $this->ticked ? 'is ticked' : 'is not ticked';
    }

    public function operand(): Operand
    {
        return Operand::Nothing;
    }

    public function test(Field $field, array $operands): Closure
    {
        $wanted = $this->ticked;

        return static fn (string|int|bool|null $value): bool => ($value === true) === $wanted;
    }

    public function query(QueryWriter $writer, Path $path, array $operands): mixed
    {
        $ticked = $writer->compare($path, Order::Equal, true);

        return $this->ticked ? $ticked : $writer->none([$ticked]);
    }
}

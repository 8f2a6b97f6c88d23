<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\Readable;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;

/** "Is in the next 7 days", "is in the last 2 months": from now up to that far, both ends included. Read by the condition reader. */
final class Within implements Operator
{
    public function __construct(private readonly bool $ahead)
    {
    }

    public function kind(): string
    {
        return $this->ahead ? 'in_next' : 'in_last';
    }

    public function fits(FieldType $type): bool
    {
        return $type->isMoment();
    }

    public function label(FieldType $type): string
    {
        return $this->ahead ? 'is in the next' : 'is in the last';
    }

    public function operand(): Operand
    {
        return Operand::Span;
    }

    public function ahead(): bool
    {
        return $this->ahead;
    }

    public function ofNothing(): ?bool
    {
        return null;
    }

    public function test(Field $field, array $operands): Closure
    {
        throw new \LogicException('A span is judged with the clock, by SpanComparison.');
    }

    public function query(QueryWriter $writer, Readable $left, array $operands): mixed
    {
        throw new \LogicException('A span is written with the clock, by SpanComparison.');
    }
}

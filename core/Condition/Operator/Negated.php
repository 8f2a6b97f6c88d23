<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\Readable;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;

/** The opposite of another operator, and so true for an empty value wherever that one asks for something filled in. */
final class Negated implements Operator
{
    public function __construct(
        private readonly Operator $of,
        private readonly string $kind,
        private readonly string $label,
    ) {
    }

    public function kind(): string
    {
        return $this->kind;
    }

    public function fits(FieldType $type): bool
    {
        return $this->of->fits($type);
    }

    public function label(FieldType $type): string
    {
        return $this->label;
    }

    public function operand(): Operand
    {
        return $this->of->operand();
    }

    public function ofNothing(): ?bool
    {
        $nothing = $this->of->ofNothing();

        return $nothing === null ? null : ! $nothing;
    }

    public function test(Field $field, array $operands): Closure
    {
        $test = $this->of->test($field, $operands);

        return static fn (string|int|bool|null $value): bool => ! $test($value);
    }

    public function query(QueryWriter $writer, Readable $left, array $operands): mixed
    {
        return $writer->none([$this->of->query($writer, $left, $operands)]);
    }
}

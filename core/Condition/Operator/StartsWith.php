<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\Given\Given;
use VividLedger\Condition\OperandSlot;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\SubjectSlot;
use VividLedger\Record\Fold;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Readable;
use VividLedger\Shape\Shape;

/** Text that begins with another text, without regard to case. */
final class StartsWith implements Operator
{
    use TurnsAtOperands;

    public function kind(): string
    {
        return 'starts_with';
    }

    public function shape(): Shape
    {
        return Shape::of($this->kind())->says('{left} starts with {value}')->orSaid('{left} (begins|begin|start) with {value}')
            ->slot('left', SubjectSlot::fitting($this))->slot('value', new OperandSlot($this));
    }

    public function fits(FieldType $type): bool
    {
        return $type->isText();
    }

    public function operand(): Operand
    {
        return Operand::One;
    }

    public function ofNothing(): ?bool
    {
        return false;
    }

    public function test(Field $field, array $operands): Closure
    {
        $start = Fold::text((string) $operands[0]);

        return static fn (string|int|bool|null $value): bool => $value !== null && str_starts_with(Fold::text((string) $value), $start);
    }

    public function query(QueryWriter $writer, Readable $left, array $operands): mixed
    {
        $text = $operands[0];

        return $writer->startsWith($left, $text instanceof Given ? $text : (string) $text);
    }

    public function isToldOfOthers(): bool
    {
        return false;
    }
}

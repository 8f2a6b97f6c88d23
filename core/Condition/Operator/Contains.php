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

/** Text that has another text in it, without regard to case. */
final class Contains implements Operator
{
    use TurnsAtOperands;

    public function kind(): string
    {
        return 'contains';
    }

    public function shape(): Shape
    {
        return Shape::of($this->kind())->says('{left} contains {value}')
            ->orSaid(
                '{left} (includes|has|mentions|contains the text|contains the word|contains the words) {value}[ in it]',
                '{value} is in {left}',
            )
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
        $part = Fold::text((string) $operands[0]);

        return static fn (string|int|bool|null $value): bool => $value !== null && str_contains(Fold::text((string) $value), $part);
    }

    public function query(QueryWriter $writer, Readable $left, array $operands): mixed
    {
        $text = $operands[0];

        return $writer->contains($left, $text instanceof Given ? $text : (string) $text);
    }

    public function isToldOfOthers(): bool
    {
        return false;
    }
}

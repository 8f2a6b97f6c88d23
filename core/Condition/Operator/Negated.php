<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\ImpliedChoice;
use VividLedger\Condition\ImpliedSubject;
use VividLedger\Condition\OperandSlot;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\ReferredSubject;
use VividLedger\Condition\SubjectSlot;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Readable;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;
use VividLedger\Shape\Slot\Keyed;

/** The opposite of another operator, and so true for an empty value wherever that one asks for something filled in. */
final class Negated implements Opposite
{
    /** @param  list<string>  $said  other ways in which people say it */
    public function __construct(
        private readonly Operator $of,
        private readonly string $kind,
        private readonly string $label,
        private readonly array $said = [],
    ) {
    }

    public function kind(): string
    {
        return $this->kind;
    }

    public function of(): string
    {
        return $this->of->kind();
    }

    public function shape(): Shape
    {
        $shape = Shape::of($this->kind)->slot('left', SubjectSlot::fitting($this))->slot('value', new OperandSlot($this))
            ->slot('values', new OperandSlot($this))->slot('several', new Keyed('values', new OperandSlot($this, 2)))
            ->slot('choice', new ImpliedChoice)
            ->slot('its', new ImpliedSubject(SubjectSlot::of(FieldType::Tags)))->slot('on', new ReferredSubject)
            ->slot('has', new ReferredSubject(['has', 'has got', 'has some']))
            ->slot('', new ItsType);
        $operand = match ($this->of->operand()) {
            Operand::Nothing => '',
            Operand::Many => ' {values}',
            default => ' {value}',
        };

        return $shape->says("{left} {$this->label}{$operand}")->orSaid(...$this->said);
    }

    public function fits(FieldType $type): bool
    {
        return $this->of->fits($type);
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

    public function ofEmpty(): ?bool
    {
        $empty = $this->of->ofEmpty();

        return $empty === null ? null : ! $empty;
    }

    public function turns(array $operands): array
    {
        return $this->of->turns($operands);
    }

    public function isToldOfOthers(): bool
    {
        return $this->of->isToldOfOthers();
    }
}

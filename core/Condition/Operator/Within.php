<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\HappeningSubject;
use VividLedger\Condition\OperandSlot;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\SubjectSlot;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Readable;
use VividLedger\Shape\Shape;

/** "Is in the next 7 days", "is in the last 2 months": from now up to that far, both ends included. Read by the condition reader. */
final class Within implements SpanOperator
{
    use TurnsAtOperands;

    public function __construct(private readonly bool $ahead)
    {
    }

    public function kind(): string
    {
        return $this->ahead ? 'in_next' : 'in_last';
    }

    public function shape(): Shape
    {
        return $this->ahead
            ? Shape::of($this->kind())->says('{left} is in the next {value}')->orSaid(
                '{left} (is |falls |lies |comes |)(within|in|during|inside|some time in) the (next|coming|following) {value}',
                '{left} (is |falls |lies |comes |)(within|in less than|less than) {value}[ from now| away| from today]',
                '{when} (within|in|during) (the next |the coming |){value}', '{left} is (no more than|at most) {value} away',
                '{left} comes up (in|within) [the next ]{value}', '(it |)(falls|comes|is) {left} (within|in|during) [the next ]{value}',
                '{left} (during|within|in) [the next |the coming ]{value}',
                '{left} comes (within|in) {value}',
                '{left} [is ]in {value} or less',
                '{left} this coming {value}',
            )->slot('left', SubjectSlot::fitting($this))->slot('value', new OperandSlot($this))->slot('when', new HappeningSubject)
            : Shape::of($this->kind())->says('{left} is in the last {value}')->orSaid(
                '{left} (is |was |lies |fell |)(within|in|during|inside|some time in) the (last|past|previous) {value}',
                '{left} (is|was) (less than|no more than|at most|not more than) {value} ago',
                '{when} (within|in|during) the (last|past) {value}',
            )->slot('left', SubjectSlot::fitting($this))->slot('value', new OperandSlot($this))->slot('when', new HappeningSubject);
    }

    public function fits(FieldType $type): bool
    {
        return $type->isMoment();
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

<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Brick\Math\BigDecimal;
use Closure;
use VividLedger\Condition\DoingSubject;
use VividLedger\Condition\OperandSlot;
use VividLedger\Condition\Order;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\SubjectSlot;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Readable;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;
use VividLedger\Shape\Slot\Overdue;

/** Over, at least, under, at most; for dates and moments: after, on or after, before, on or before. */
final class Ordered implements Operator
{
    use TurnsAtOperands;

    public function __construct(private readonly Order $order)
    {
    }

    public function kind(): string
    {
        return match ($this->order) {
            Order::Over => 'over',
            Order::AtLeast => 'at_least',
            Order::Under => 'under',
            Order::AtMost => 'at_most',
            Order::Equal => throw new \LogicException('Equality is the operator Is.'),
        };
    }

    public function shape(): Shape
    {
        [$number, $moment, $others] = match ($this->order) {
            Order::Over => ['is over', 'is after', 'is (above|more than|greater than|larger than|higher than|bigger than|'
                .'later than|past|beyond)|'
                .'>|›|exceeds|goes over|tops|over|above|more than|greater than|larger than|'
                .'higher than|bigger than|after|later than|was after'],
            Order::AtLeast => ['is at least', 'is on or after', '>=|≥|is (no less than|not less than|not below|not under|min|from|not '
                .'before|no earlier than|equal to or '
                .'more than|equal to or greater than|greater than or equal to|more than or equal to)|at least|from|is not less than|on '
                    .'or after|not below|not under|not less than|no less than|is not lower than'],
            Order::Under => ['is under', 'is before', 'is (below|less than|lower than|smaller than|fewer than|earlier '
                .'than)|<|under|below|less than|lower than|smaller than|fewer than|'
                .'before|earlier than|was before'],
            default => ['is at most', 'is on or before', '<=|≤|is (no more than|not more than|not above|not over|max|up to|not after|no '
                .'later than|equal to or less than|'
                .'less than or equal to)|at most|up to|no more than|on or before|not above|not over|not more than'],
        };
        $behind = match ($this->order) {
            Order::AtLeast => [
                '{left} (is|of|) {value} (or|and) (more|over|above|higher|later|after|greater|up|upwards)',
                'with [a ]{left} of {value} or (more|over|above|higher)', '{left} {value}+',
            ],
            Order::AtMost => [
                '{left} (is|of|) {value} (or|and) (less|under|below|lower|earlier|before|smaller|down)',
                'with [a ]{left} of {value} or (less|below|lower)',
            ],
            default => [],
        };

        // "Overdue" is before today; "in the future" is after it.
        $now = ['value' => ['kind' => 'moment', 'amount' => 0, 'unit' => 'day']];
        $said = match ($this->order) {
            Order::Under => [
                '[{} ](is |){over}', '{moment} (is|lies) in the past', '{moment} (is over|has passed|is gone|has gone by|is past)',
            ],
            Order::Over => ['{moment} (is|lies) in the future', '{moment} (is|lies) (ahead|still to come|yet to come|still ahead)'],
            default => [],
        };

        return Shape::of($this->kind())->says("{number} {$number} {value}")->says("{moment} {$moment} {value}")
            ->orSaid(
                "{left} [of ]({$others}) {value}",
                "{does} ({$others}) {value}",
                "with [a |an ]{left} [of ]({$others}) {value}",
                "[a |an ]{left} of ({$others}) {value}",
                ...$behind,
            )
            ->orSaidWith($now, ...$said)->slot('over', new Overdue)->slot('', new ItsType)
            ->slot('left', SubjectSlot::fitting($this))->slot('value', new OperandSlot($this))
            ->slot('does', new DoingSubject)->slot('number', SubjectSlot::of(FieldType::Number, FieldType::Percent, FieldType::Money))
            ->slot('moment', SubjectSlot::of(FieldType::Date, FieldType::DateTime));
    }

    public function fits(FieldType $type): bool
    {
        return $type->isDecimal() || $type->isMoment();
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
        $limit = (string) $operands[0];
        if ($field->type->isMoment()) {
            // Dates and UTC instants are written so that the order of the texts is the order in time.
            return match ($this->order) {
                Order::Over => static fn (string|int|bool|null $value): bool => $value !== null && strcmp((string) $value, $limit) > 0,
                Order::AtLeast => static fn (string|int|bool|null $value): bool => $value !== null && strcmp((string) $value, $limit) >= 0,
                Order::Under => static fn (string|int|bool|null $value): bool => $value !== null && strcmp((string) $value, $limit) < 0,
                default => static fn (string|int|bool|null $value): bool => $value !== null && strcmp((string) $value, $limit) <= 0,
            };
        }
        $amount = BigDecimal::of($limit);

        return match ($this->order) {
            Order::Over => static fn (string|int|bool|null $value): bool => $value !== null && $amount->isLessThan((string) $value),
            Order::AtLeast => static fn (string|int|bool|null $value): bool => $value !== null
                && $amount->isLessThanOrEqualTo((string) $value),
            Order::Under => static fn (string|int|bool|null $value): bool => $value !== null && $amount->isGreaterThan((string) $value),
            default => static fn (string|int|bool|null $value): bool => $value !== null && $amount->isGreaterThanOrEqualTo((string) $value),
        };
    }

    public function query(QueryWriter $writer, Readable $left, array $operands): mixed
    {
        return $writer->compare($left, $this->order, $operands[0]);
    }
}

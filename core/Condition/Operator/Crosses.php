<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Brick\Math\BigDecimal;
use Closure;
use VividLedger\Condition\OperandSlot;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\SubjectSlot;
use VividLedger\Facts\View;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Readable;
use VividLedger\Shape\Shape;

/**
 * How a number moved from one value to another: over a limit or below it, or by more than so much. What was empty before, or is now, has
 * not moved.
 */
final class Crosses implements ChangeOperator
{
    use TurnsAtOperands;

    /** @param  bool  $isBy  by how much it moved, and not past which limit */
    public function __construct(private readonly bool $isUp, private readonly bool $isBy)
    {
    }

    public function kind(): string
    {
        return match (true) {
            $this->isUp => $this->isBy ? 'rises_by' : 'rises_above',
            default => $this->isBy ? 'falls_by' : 'falls_below',
        };
    }

    public function shape(): Shape
    {
        $moves = $this->isUp
            ? '(rises|rose|has risen|climbs|climbed|has climbed|grows|grew|has grown|increases|increased|has increased)'
            : '(falls|fell|has fallen|drops|dropped|has dropped|sinks|sank|has sunk|decreases|decreased|has decreased)';
        [$says, $behind] = match (true) {
            $this->isBy => [($this->isUp ? 'rises' : 'falls').' by more than', 'by (more than|over)'],
            $this->isUp => ['rises above', '(above|over|past|beyond)'],
            default => ['falls below', '(below|under)'],
        };

        return Shape::of($this->kind())->says("{left} {$says} {value}")->orSaid("{left} {$moves} {$behind} {value}")
            ->slot('left', SubjectSlot::fitting($this))->slot('value', new OperandSlot($this));
    }

    public function fits(FieldType $type): bool
    {
        return $type->isDecimal();
    }

    public function operand(): Operand
    {
        return Operand::One;
    }

    public function ofNothing(): ?bool
    {
        return null;
    }

    public function test(Field $field, array $operands): Closure
    {
        return static fn (string|int|bool|null $value): bool => false;
    }

    public function judge(Field $field, array $operands): Closure
    {
        $limit = BigDecimal::of((string) $operands[0]);

        return function (View $view) use ($field, $limit): bool {
            $change = $view->ownChange();
            [$was, $is] = [$change?->before?->value($field->name), $change?->after?->value($field->name)];
            if ($was === null || $is === null) {
                return false;
            }
            [$from, $to] = [BigDecimal::of((string) $was), BigDecimal::of((string) $is)];
            [$low, $high] = $this->isUp ? [$from, $to] : [$to, $from];
            if ($this->isBy) {
                return $high->minus($low)->isGreaterThan($limit) && $high->isGreaterThan($low);
            }

            return $this->isUp
                ? $low->isLessThanOrEqualTo($limit) && $high->isGreaterThan($limit)
                : $low->isLessThan($limit) && $high->isGreaterThanOrEqualTo($limit);
        };
    }

    /** A query has no change, and so nothing moved. */
    public function query(QueryWriter $writer, Readable $left, array $operands): mixed
    {
        return $writer->never();
    }

    public function ofEmpty(): ?bool
    {
        return null;
    }

    public function asksChange(): bool
    {
        return true;
    }
}

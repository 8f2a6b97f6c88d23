<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\OperandSlot;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\SubjectSlot;
use VividLedger\Facts\View;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Readable;
use VividLedger\Shape\Shape;

/** The change touched the field: at all, away from a value, or to a value. On creation a filled-in field has changed from empty. */
final class HasChanged implements ChangeOperator
{
    use TurnsAtOperands;

    public function __construct(private readonly ?string $side = null)
    {
    }

    public function kind(): string
    {
        return $this->side === null ? 'has_changed' : "changed_{$this->side}";
    }

    public function shape(): Shape
    {
        $shape = Shape::of($this->kind())->slot('left', SubjectSlot::fitting($this))->slot('value', new OperandSlot($this));

        return match ($this->side) {
            'from' => $shape->says('{left} changed from {value}')
                ->orSaid('{left} (has|was|is|) changed (from|away from) {value}', '{left} (moved|went) (from|away from) {value}'),
            'to' => $shape->says('{left} changed to {value}')->orSaid(
                '{left} (has|was|is|) changed to {value}', '{left} (became|becomes|has become|went to|moved to|was set to) {value}',
            ),
            default => $shape->says('{left} has changed')->orSaid(
                '{left} (changed|changes|was changed|is changed|has been changed|got changed|is different|is new|was edited|has '
                    .'been edited)',
                'there is a (change of|change in|new) {left}', '{left} is not (what it was|the same as before|the same any more)',
                '{left} (was|has been|got) (just|newly) changed', '{left} (has |)just changed',
            ),
        };
    }

    public function fits(FieldType $type): bool
    {
        return $this->side === null || ! $type->isSet() && $type !== FieldType::LongText;
    }

    public function operand(): Operand
    {
        return $this->side === null ? Operand::Nothing : Operand::One;
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
        $side = $this->side;
        $is = $side === null ? null : self::is($field, $operands);

        return static function (View $view) use ($field, $side, $is): bool {
            $change = $view->ownChange();
            if ($change === null || ! in_array($field->name, $change->fields(), true)) {
                return false;
            }
            $record = $side === 'from' ? $change->before : $change->after;

            return $is === null || $is($record?->value($field->name));
        };
    }

    public function query(QueryWriter $writer, Readable $left, array $operands): mixed
    {
        return $writer->never();
    }

    /**
     * @param  list<string|int|bool>  $operands
     * @return Closure(string|int|bool|null): bool
     */
    private static function is(Field $field, array $operands): Closure
    {
        return $field->type === FieldType::Tick ? static fn (string|int|bool|null $value): bool => $value === ($operands[0]
            ?? true) : (new Is)->test($field, $operands);
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

<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\Readable;
use VividLedger\Engine\View;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;

/** The change touched the field: at all, away from a value, or to a value. On creation a filled-in field has changed from empty. */
final class HasChanged implements ChangeOperator
{
    public function __construct(private readonly ?string $side = null)
    {
    }

    public function kind(): string
    {
        return $this->side === null ? 'has_changed' : "changed_{$this->side}";
    }

    public function fits(FieldType $type): bool
    {
        return $this->side === null || ! $type->isSet() && $type !== FieldType::LongText;
    }

    public function label(FieldType $type): string
    {
        return $this->side === null ? 'has changed' : "changed {$this->side}";
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
}

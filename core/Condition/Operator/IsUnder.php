<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\OperandSlot;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\SubjectSlot;
use VividLedger\Facts\View;
use VividLedger\House\Directory;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Readable;
use VividLedger\Shape\Shape;

/**
 * Whether the person in a field has somebody above them: as manager, as manager of the manager, and so on. Its opposite is true of nobody
 * too.
 */
final class IsUnder implements PersonOperator
{
    use TurnsAtOperands;

    public function __construct(private readonly bool $isNot = false)
    {
    }

    public function kind(): string
    {
        return $this->isNot ? 'not_under_person' : 'under_person';
    }

    public function shape(): Shape
    {
        return Shape::of($this->kind())->says($this->isNot ? '{left} is not under {value}' : '{left} is under {value}')
            ->orSaid(...($this->isNot ? [
                '{left} (does not report|doesn’t report) to {value}', '{left} (does not work|doesn’t work) (for|under) {value}',
            ]
                : ['{left} reports to {value}', '{left} works (for|under) {value}']))
            ->slot('left', SubjectSlot::fitting($this))->slot('value', new OperandSlot($this));
    }

    public function fits(FieldType $type): bool
    {
        return $type === FieldType::Person;
    }

    public function operand(): Operand
    {
        return Operand::One;
    }

    public function ofNothing(): ?bool
    {
        return null;
    }

    public function compared(Field $field): Field
    {
        return $field;
    }

    public function test(Field $field, array $operands): Closure
    {
        throw new \LogicException('The id of a person does not say it.');
    }

    public function judgePerson(Readable $left, array $operands): Closure
    {
        $above = (int) ($operands[0] ?? 0);

        return function (View $view) use ($left, $above): bool {
            $id = $view->value($left);
            $seen = [];
            $at = is_int($id) ? $view->facts->person($id)?->managerId : null;
            while ($at !== null && $at !== $above && ! isset($seen[$at])) {
                $seen[$at] = true;
                $at = $view->facts->person($at)?->managerId;
            }

            return ($at === $above) !== $this->isNot;
        };
    }

    public function query(QueryWriter $writer, Readable $left, array $operands): mixed
    {
        $holds = $writer->isUnder($left, (int) (is_scalar($operands[0] ?? null) ? $operands[0] : 0));

        return $this->isNot ? $writer->none([$holds]) : $holds;
    }

    public function ofEmpty(): bool
    {
        return $this->isNot;
    }

    public function trouble(array $operands, Directory $directory): null
    {
        return null;
    }
}

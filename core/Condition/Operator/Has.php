<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\ImpliedSubject;
use VividLedger\Condition\OperandSlot;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\SubjectSlot;
use VividLedger\Record\Members;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Readable;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;

/** A set of choices or tags that has a member: one, or any or all of several. */
final class Has implements Operator
{
    use TurnsAtOperands;

    public function __construct(private readonly string $how = 'has')
    {
    }

    public function kind(): string
    {
        return $this->how;
    }

    public function shape(): Shape
    {
        $tags = SubjectSlot::of(FieldType::Tags);
        $shape = Shape::of($this->kind())->slot('left', SubjectSlot::fitting($this))->slot('choices', SubjectSlot::of(FieldType::Choices))
            ->slot('tags', $tags)->slot('', new ItsType)->slot('its', new ImpliedSubject($tags))->slot('value', new OperandSlot($this))
            ->slot('values', new OperandSlot($this));

        return match ($this->how) {
            'has_any' => $shape->says('{left} has any of {values}')
                ->orSaid('{left} (includes|contains|has) (any|one|at least one) of {values}', '[{} ]has any of the tags {its}{values}'),
            'has_all' => $shape->says('{left} has all of {values}')->orSaid('{left} (includes|contains|has) (all|each) of {values}'),
            default => $shape->says('{tags} has the tag {value}')->says('{choices} has {value}')->orSaid(
                '{left} (has|includes|include|contains|contain|have) [the tag |tag ]{value}',
                '[{} ](has|carries|with) [the |a ]tag {its}{value}', '[{} ]has [the |a ]{its}{value} tag',
                '[{} ][is ]tagged [with |as ]{its}{value}',
                '(there is |with |)a tag {its}{value}',
                '[its |the ]tags (include|contain|have) {its}{value}',
                '[the ]tag {its}{value} is (there|set|on it)',
                '[the ]tags[:| are] {its}{value}',
                'it carries the tag {its}{value}',
            ),
        };
    }

    public function fits(FieldType $type): bool
    {
        return $type->isSet();
    }

    public function operand(): Operand
    {
        return $this->how === 'has' ? Operand::One : Operand::Many;
    }

    public function ofNothing(): ?bool
    {
        return null;
    }

    public function test(Field $field, array $operands): Closure
    {
        $wanted = array_map(strval(...), $operands);
        $all = $this->how === 'has_all';

        return static function (string|int|bool|null $value) use ($wanted, $all): bool {
            $found = count(array_intersect($wanted, Members::of($value)));

            return $all ? $found === count($wanted) : $found > 0;
        };
    }

    public function query(QueryWriter $writer, Readable $left, array $operands): mixed
    {
        $parts = [];
        foreach ($operands as $operand) {
            $parts[] = $writer->has($left, is_scalar($operand) ? (string) $operand : '');
        }

        return $this->how === 'has_all' ? $writer->all($parts) : $writer->any($parts);
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\ReferredSubject;
use VividLedger\Condition\SubjectSlot;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Readable;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;

/** Nothing is filled in. */
final class IsEmpty implements Operator
{
    use TurnsAtOperands;

    public function kind(): string
    {
        return 'is_empty';
    }

    public function shape(): Shape
    {
        return Shape::of($this->kind())->says('{left} is empty')->orSaid(
            '{none}',
            '{left} (is|is left|was left|=|has been left) (empty|blank|missing|nothing|unset|not set|not filled in|not filled|not '
                .'known|unknown)',
            '{left} (isn’t|is not|has not been|was not) (set|filled in|filled|given|known|there)', '{left} has no value', 'no {left}',
            '(there is|it has|has|{} has|there’s) no {left}', 'without [a |an |any ]{left}', 'nobody is in {left}', '{left} does not exist',
            '{left} (has nothing in it|holds nothing)', '{left} is not (present|entered)',
            'nothing is (in|entered in|filled in for) {left}',
            '{left} (not set|not given|not filled in|unknown)',
            'no {left} (set|given|is given|is set|is there|is known|is entered|was given)',
            'nobody is [the ]{left}', 'we (do not|don’t) (have|know) {left}',
        )->slot('none', new ReferredSubject(['has no', 'has not got', 'does not have', 'doesn’t have', 'is without', 'lacks']))
            ->slot('left', SubjectSlot::fitting($this))->slot('', new ItsType);
    }

    public function fits(FieldType $type): bool
    {
        return $type !== FieldType::Tick;
    }

    public function operand(): Operand
    {
        return Operand::Nothing;
    }

    public function ofNothing(): ?bool
    {
        return null;
    }

    public function test(Field $field, array $operands): Closure
    {
        return static fn (string|int|bool|null $value): bool => $value === null;
    }

    public function query(QueryWriter $writer, Readable $left, array $operands): mixed
    {
        return $writer->isEmpty($left);
    }
}

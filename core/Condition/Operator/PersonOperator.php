<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Facts\View;
use VividLedger\House\Directory;
use VividLedger\Schema\Field;
use VividLedger\Schema\Readable;

/** An operator that looks at what the company knows of the person in a field, and so is not judged by the value alone. */
interface PersonOperator extends Operator
{
    /** The field that stands for what it compares with. */
    public function compared(Field $field): Field;

    /**
     * @param  list<string|int|bool>  $operands
     * @return Closure(View): bool
     */
    public function judgePerson(Readable $left, array $operands): Closure;

    /**
     * @param  list<mixed>  $operands
     * @return ?array{string, string} code and message of what is wrong with them in this company; null when nothing is
     */
    public function trouble(array $operands, Directory $directory): ?array;
}

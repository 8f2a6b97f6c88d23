<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\Given\Given;
use VividLedger\Condition\QueryWriter;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Readable;
use VividLedger\Shape\Shape;

/** One way to compare a field. Each operator is one file with its meaning, its wording and its checks. */
interface Operator
{
    /** Its name in rule files. */
    public function kind(): string;

    /** How it is written, printed and said, around the places for what it looks at and what it compares with. */
    public function shape(): Shape;

    public function fits(FieldType $type): bool;

    public function operand(): Operand;

    /** Whether it can compare with what is found when the rule is judged, and what it says when nothing is found. */
    public function ofNothing(): ?bool;

    /** Its answer for an empty value whatever it is compared with; null where that hangs on more than the value. */
    public function ofEmpty(): ?bool;

    /**
     * The values around which its answer turns: between two of them it is the same for all.
     *
     * @param  list<string|int|bool>  $operands
     * @return list<string|int|bool>
     */
    public function turns(array $operands): array;

    /** Whether its answer for a text is known when all that is known of the text is that it is none of those it turns at. */
    public function isToldOfOthers(): bool;

    /**
     * @param  list<string|int|bool>  $operands
     * @return Closure(string|int|bool|null): bool
     */
    public function test(Field $field, array $operands): Closure;

    /**
     * @template Q
     *
     * @param  QueryWriter<Q>  $writer
     * @param  list<string|int|bool|Given>  $operands
     * @return Q
     */
    public function query(QueryWriter $writer, Readable $left, array $operands): mixed;
}

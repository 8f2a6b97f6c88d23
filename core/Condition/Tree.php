<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Condition\Given\Given;
use VividLedger\Condition\Operator\ChangeOperator;
use VividLedger\Facts\Children;
use VividLedger\Facts\Total;
use VividLedger\Schema\Path;

/** Questions about a whole tree of conditions. */
final class Tree
{
    /** Whether any condition counts, sums or compares children. */
    public static function counts(Condition $condition): bool
    {
        return $condition instanceof Parted ? array_filter($condition->parts(), self::counts(...)) !== []
            : $condition instanceof Comparison && $condition->left instanceof Total;
    }

    /** @return list<Statement> the conditions without parts, named ones opened */
    public static function statements(Condition $condition): array
    {
        return match (true) {
            $condition instanceof Statement => [$condition],
            $condition instanceof Parted => array_merge([], ...array_map(self::statements(...), $condition->parts())),
            default => throw new \LogicException($condition::class.' is neither a statement nor has it parts.'),
        };
    }

    /** @return list<Condition> conditions that all have to hold for this one to; none when it is no such group */
    public static function together(Condition $condition): array
    {
        return $condition instanceof All ? $condition->parts : [];
    }

    /** @return list<Comparison> those that all have to hold */
    public static function comparisons(Condition $condition): array
    {
        return $condition instanceof Comparison ? [$condition]
            : array_merge([], ...array_map(self::comparisons(...), self::together($condition)));
    }

    /** Whether a condition speaks of the change at hand, and so says nothing of the next one. */
    public static function isOfChange(Condition $condition): bool
    {
        return ! $condition instanceof Comparison || $condition->operator instanceof ChangeOperator;
    }

    /** Name of the field that has to change for a statement to hold; null when none has to. */
    public static function changed(Statement $statement): ?string
    {
        return $statement instanceof Comparison && $statement->operator instanceof ChangeOperator && $statement->operator->asksChange()
            ? $statement->left->field()->name : null;
    }

    /** What children are counted by besides their reference; null when all are. */
    public static function where(Children $children): ?Condition
    {
        $where = $children->where;

        return $where === null || $where instanceof Condition ? $where : throw new \LogicException('Children are chosen by conditions.');
    }

    /** Whether it takes other records to judge the condition: those referred to, or children. */
    public static function readsOthers(Condition $condition): bool
    {
        return self::counts($condition) || array_filter($condition->paths(), static fn (Path $path): bool => $path->hops !== []) !== [];
    }

    /** Whether the values of the record itself decide the condition: not the change, nor the clock, nor anybody else. */
    public static function isPlain(Condition $condition): bool
    {
        return ! self::readsOthers($condition)
            && array_filter(self::statements($condition), static fn (Statement $leaf): bool => ! $leaf instanceof Comparison
            || $leaf->operator instanceof ChangeOperator
            || array_filter($leaf->operands, static fn (mixed $operand): bool => $operand instanceof Given) !== []) === [];
    }
}

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
        return match (true) {
            $condition instanceof Group => array_filter($condition->parts, self::counts(...)) !== [],
            $condition instanceof NamedCondition => self::counts($condition->of),
            default => $condition instanceof Comparison && $condition->left instanceof Total,
        };
    }

    /** @return list<Condition> the conditions without parts, named ones opened */
    public static function leaves(Condition $condition): array
    {
        return match (true) {
            $condition instanceof NamedCondition => self::leaves($condition->of),
            $condition instanceof Group => array_merge([], ...array_map(self::leaves(...), $condition->parts)),
            default => [$condition],
        };
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
            && array_filter(self::leaves($condition), static fn (Condition $leaf): bool => ! $leaf instanceof Comparison
            || $leaf->operator instanceof ChangeOperator
            || array_filter($leaf->operands, static fn (mixed $operand): bool => $operand instanceof Given) !== []) === [];
    }
}

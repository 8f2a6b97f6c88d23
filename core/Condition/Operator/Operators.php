<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use VividLedger\Condition\Order;
use VividLedger\Schema\FieldType;

/** All operators, in the order they are offered. A new operator is a new file and one line here. */
final class Operators
{
    /** @return array<string, Operator> by kind */
    public static function all(): array
    {
        static $all = null;
        if ($all === null) {
            $all = [];
            foreach ([
                new Is, new IsNot, new OneOf, new NotOneOf, new Contains, new NotContains, new StartsWith,
                new Ordered(Order::Over), new Ordered(Order::AtLeast), new Ordered(Order::Under), new Ordered(Order::AtMost),
                new Ticked(true), new Ticked(false), new IsFilled, new IsEmpty,
            ] as $operator) {
                $all[$operator->kind()] = $operator;
            }
        }

        /** @var array<string, Operator> $all */
        return $all;
    }

    /** @return list<Operator> */
    public static function fitting(FieldType $type): array
    {
        return array_values(array_filter(self::all(), static fn (Operator $operator): bool => $operator->fits($type)));
    }
}

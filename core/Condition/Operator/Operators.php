<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use VividLedger\Condition\Order;
use VividLedger\Schema\FieldType;

/** All operators, in the order they are offered. A new operator is a new file and a place here. */
final class Operators
{
    /** @return array<string, Operator> by kind */
    public static function all(): array
    {
        static $all = null;
        if ($all === null) {
            $all = [];
            foreach ([
                new Is, new Negated(new Is, 'is_not', 'is not'),
                new OneOf, new Negated(new OneOf, 'not_one_of', 'is none of'),
                new Contains, new Negated(new Contains, 'not_contains', 'does not contain'), new StartsWith,
                new Ordered(Order::Over), new Ordered(Order::AtLeast), new Ordered(Order::Under), new Ordered(Order::AtMost),
                new Ticked, new Negated(new Ticked, 'not_ticked', 'is not ticked'),
                new Has, new Negated(new Has, 'has_not', 'has not'), new Has('has_any'), new Has('has_all'), new Negated(
                    new Has('has_any'),
                    'has_none',
                    'has none of',
                ),
                new Within(true), new Within(false),
                new InTeam, new InTeam(true), new IsUnder, new IsUnder(true),
                new HasChanged, new HasChanged('from'), new HasChanged('to'), new Was,
                new Negated(new IsEmpty, 'is_filled', 'is filled in'), new IsEmpty,
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

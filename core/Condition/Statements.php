<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Shape\Kinds;
use VividLedger\Shape\Shape;

/** All conditions besides comparisons and groups, in the order they are offered. A new kind is a new file and one line here. */
final class Statements
{
    /** @var list<class-string<Spoken>> */
    public const ALL = [
        Happened::class, MadeBy::class, SignOffStands::class, DayIs::class, TimeIs::class, WorkingTime::class, FormulaHolds::class,
        NamedCondition::class,
    ];

    /** @return list<class-string<Spoken>> */
    public static function all(): array
    {
        return Kinds::all(self::class, self::ALL);
    }

    /** @return array<string, class-string<Spoken>> by their names in a rule file */
    public static function byKind(): array
    {
        return Kinds::once(self::class, static function (): array {
            $kinds = [];
            foreach (self::all() as $statement) {
                foreach ($statement::shapes() as $shape) {
                    $kinds[$shape->kind] = $statement;
                }
            }

            return $kinds;
        });
    }

    /** @return list<Shape> */
    public static function shapes(): array
    {
        return array_merge(...array_map(static fn (string $statement): array => $statement::shapes(), self::all()));
    }
}

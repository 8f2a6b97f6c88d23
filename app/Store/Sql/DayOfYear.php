<?php

declare(strict_types=1);

namespace App\Store\Sql;

use Illuminate\Database\Query\Expression;

/** The day and month of a date, by which anniversaries are looked for; the query builder compares whole dates only. */
final class DayOfYear
{
    /** @return Expression<non-falsy-string> "02-28" */
    public static function of(string $column): Expression
    {
        return new Expression("DATE_FORMAT(`{$column}`, '%m-%d')");
    }

    /** @return Expression<non-falsy-string> "02-28 09:30:00" */
    public static function withTime(string $column): Expression
    {
        return new Expression("DATE_FORMAT(`{$column}`, '%m-%d %T')");
    }
}

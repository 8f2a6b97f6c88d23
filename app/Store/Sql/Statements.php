<?php

declare(strict_types=1);

namespace App\Store\Sql;

use Illuminate\Support\Facades\DB;

/** Statements for which the query builder has no words. */
final class Statements
{
    /** The next number of a sequence; it is counted outside of the transaction, so that nobody waits for it. */
    public static function next(string $sequence): int
    {
        return (int) DB::scalar("SELECT NEXTVAL(`{$sequence}`)");
    }

    /**
     * What an expression comes to that stands on no table of its own, as a total over children does.
     *
     * @param  list<string|int>  $bindings
     */
    public static function value(string $expression, array $bindings): mixed
    {
        return DB::scalar("SELECT {$expression}", $bindings);
    }
}

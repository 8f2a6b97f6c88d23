<?php

declare(strict_types=1);

namespace App\Store\Sql;

/** A piece of SQL with the values it is bound to. */
final readonly class Sql
{
    /** @param  list<string|int>  $bindings */
    public function __construct(
        public string $text,
        public array $bindings = [],
    ) {
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Schema\Path;

/**
 * Where a condition writes itself as a query. An implementation gives each statement one truth value: a comparison with
 * an empty value is false, also below none().
 *
 * @template Q
 */
interface QueryWriter
{
    /**
     * @param  list<Q>  $parts  none of them is true as well
     * @return Q
     */
    public function all(array $parts): mixed;

    /**
     * @param  list<Q>  $parts  none of them is false
     * @return Q
     */
    public function any(array $parts): mixed;

    /**
     * @param  list<Q>  $parts
     * @return Q
     */
    public function none(array $parts): mixed;

    /** @return Q true where the path is filled in and compares as stated; text is compared by its folded form */
    public function compare(Path $path, Order $order, string|int|bool $value): mixed;

    /**
     * @param  list<string|int>  $values
     * @return Q
     */
    public function oneOf(Path $path, array $values): mixed;

    /** @return Q */
    public function contains(Path $path, string $text): mixed;

    /** @return Q */
    public function startsWith(Path $path, string $text): mixed;

    /** @return Q */
    public function isEmpty(Path $path): mixed;
}

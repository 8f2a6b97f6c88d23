<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Condition\Given\Given;
use VividLedger\Formula\Formula;
use VividLedger\People\Route;
use VividLedger\Schema\Field;
use VividLedger\Schema\Path;
use VividLedger\Schema\Readable;
use VividLedger\Time\WorkingCalendar;

/**
 * Where a condition writes itself as a query. An implementation gives each statement one truth value: a comparison with
 * an empty value is false, also below none(). A query knows records and no change, so what a condition says about a
 * change is written with never().
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

    /** @return Q */
    public function never(): mixed;

    /** @return Q true where both sides are filled in and compare as stated; text is compared by its folded form */
    public function compare(Readable $left, Order $order, string|int|bool|Given $value): mixed;

    /**
     * @param  list<string|int>  $values
     * @return Q
     */
    public function oneOf(Readable $left, array $values): mixed;

    /** @return Q true where a set of choices or tags has a member */
    public function has(Readable $left, string $member): mixed;

    /** @return Q */
    public function contains(Readable $left, string|Given $text): mixed;

    /** @return Q */
    public function startsWith(Readable $left, string|Given $text): mixed;

    /** @return Q */
    public function isEmpty(Readable $left): mixed;

    /** @return Q true where somebody is above the person found, however far */
    public function isUnder(Readable $left, int $person): mixed;

    /** @return Q true where a formula comes out true */
    public function formula(Formula $formula): mixed;

    /** @return Q true where the latest sign-off of the record, which is of this type, stands so */
    public function signOffStands(string $type, string $status, string $called): mixed;

    /** The moment at which the query asks. */
    public function now(): \DateTimeImmutable;

    /** The working calendar of the company. */
    public function calendar(): WorkingCalendar;

    /** @return Q the value of another field, to be compared with one */
    public function fieldSide(Path $path, Field $for): mixed;

    /** @return Q somebody found by steps; who made a change is not a question for a query */
    public function personSide(?Route $route): mixed;

    /** @return Q a value as it is compared with a field */
    public function valueSide(string|int|bool $value, Field $for): mixed;
}

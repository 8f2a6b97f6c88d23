<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use Brick\Math\BigDecimal;

/** What the field holds times an amount, rounded half up to the field's digits. */
final readonly class Multiplied extends Arithmetic
{
    public static function kind(): string
    {
        return 'multiply';
    }

    protected static function deedsSaid(): array
    {
        return ['multiply {field} (by|with) {amount}'];
    }

    protected static function usual(): string
    {
        return '2';
    }

    protected static function usuallySaid(): array
    {
        return ['double {field}'];
    }

    protected static function word(): string
    {
        return 'times';
    }

    protected function result(BigDecimal $value, BigDecimal $amount): BigDecimal
    {
        return $value->multipliedBy($amount);
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use Brick\Math\BigDecimal;

/** What the field holds plus an amount. */
final readonly class Added extends Arithmetic
{
    public static function kind(): string
    {
        return 'add';
    }

    protected static function word(): string
    {
        return 'plus';
    }

    protected function result(BigDecimal $value, BigDecimal $amount): BigDecimal
    {
        return $value->plus($amount);
    }
}

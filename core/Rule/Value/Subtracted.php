<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use Brick\Math\BigDecimal;

/** What the field holds minus an amount. */
final readonly class Subtracted extends Arithmetic
{
    public static function kind(): string
    {
        return 'subtract';
    }

    protected static function word(): string
    {
        return 'minus';
    }

    protected function result(BigDecimal $value, BigDecimal $amount): BigDecimal
    {
        return $value->minus($amount);
    }
}

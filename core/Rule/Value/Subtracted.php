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

    protected static function deedsSaid(): array
    {
        return [
            '(decrease|lower|reduce|cut|drop|decrement|bring down|shrink) {field} by {amount}',
            '(take|subtract|deduct|remove|knock) {amount} (off|from|away from|out of) {field}',
            '(count|bring) {field} down by {amount}', 'make {field} {amount} less', '{field} (minus|-|−|-=) {amount}',
            '(set|make) {field} {amount} lower', '{field} (goes|go|) down by {amount}', '(minus|-) {amount} (on|to) {field}',
            '(lower|reduce|decrease) the number of {field} by {amount}', '{amount} (less|fewer) {field}',
        ];
    }

    protected static function usual(): string
    {
        return '1';
    }

    protected static function usuallySaid(): array
    {
        return ['(decrement|count down) {field}', 'count {field} down', '(decrease|lower|reduce) {field} by one'];
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

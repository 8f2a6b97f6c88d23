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

    protected static function deedsSaid(): array
    {
        return [
            '(increase|raise|up|bump|bump up|increment|grow|lift|put up) {field} by {amount}', 'add {amount} to {field}',
            '{field} (plus|+|+=) {amount}', '(set|make) {field} {amount} (more|higher)', '(count|put) {field} up by {amount}',
            '(increase|raise|bump) {field} (with|another) {amount}',
            '{field} (goes|go|) up by {amount}',
            '(plus|+) {amount} (on|to) {field}',
            '(raise|increase) the number of {field} by {amount}', 'add {amount} more to {field}',
            '{amount} more {field}', 'add another {amount} to {field}',
        ];
    }

    protected static function usual(): string
    {
        return '1';
    }

    protected static function usuallySaid(): array
    {
        return [
            '(increment|count up) {field}', 'count {field} up', '(add|put) one more (to|on) {field}', '(increase|raise) {field} by one',
        ];
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

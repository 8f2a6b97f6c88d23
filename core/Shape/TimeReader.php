<?php

declare(strict_types=1);

namespace VividLedger\Shape;

use VividLedger\Time\Amount;
use VividLedger\Time\Due;
use VividLedger\Time\Roll;
use VividLedger\Time\Unit;
use VividLedger\Words\Words;

/** Reads lengths of time and moments as a rule file writes them. */
final class TimeReader
{
    /** Reads amount, unit, roll, time and clock; a text instead says what is wrong with them. */
    public static function due(Node $node): Due|string
    {
        $given = $node->child('amount')->raw;
        $unit = Unit::tryFrom($node->child('unit')->text() ?? '');
        if (! is_int($given) || $unit === null) {
            return Words::say('Give a whole number and a unit, such as 2 days.');
        }
        $amount = new Amount($given, $unit);
        if (! $amount->isReasonable()) {
            return Words::say('A moment can lie at most ten years away.');
        }
        $roll = $node->child('roll')->raw;
        $time = $node->child('time')->raw;
        $clock = $node->child('clock')->raw;

        $isRoll = is_string($roll) && Roll::tryFrom($roll) !== null;
        $isTime = is_string($time) && preg_match('/^([01]\d|2[0-3]):[0-5]\d$/', $time) === 1;

        return match (true) {
            $roll !== null && ! $isRoll => Words::say('A moment moves to the next or to the previous working day.'),
            $time !== null && ! $isTime => Words::say('A time of day is written as 09:00, from 00:00 to 23:59.'),
            $time !== null && $unit->isShort() => Words::say(
                'Minutes and hours lead to a time of day by themselves. Leave the time out, or count in days.',
            ),
            $clock !== null && $clock !== 'owner' => Words::say('Time is told by the company’s clock, or by the owner’s.'),
            default => new Due($amount, is_string($roll) ? Roll::from($roll) : null, is_string($time) ? $time : null, $clock === 'owner'),
        };
    }

    /** Reads a whole number and a unit; null when it is not that, or too far away. */
    public static function amount(Node $node): ?Amount
    {
        $amount = $node->child('amount')->raw;
        $unit = Unit::tryFrom($node->child('unit')->text() ?? '');
        $read = is_int($amount) && $unit !== null ? new Amount($amount, $unit) : null;

        return $read?->isReasonable() === true ? $read : null;
    }
}

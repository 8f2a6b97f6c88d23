<?php

declare(strict_types=1);

namespace VividLedger\Text;

use VividLedger\Shape\Scope;
use VividLedger\Time\Roll;
use VividLedger\Time\Unit;

/** Amounts of time: "3 working days", "2h", and what can stand behind them, "at 09:00, or the next working day". */
final class Amounts
{
    private const SHORT = [
        'minutes?|min' => Unit::Minute, 'hours?|hrs?|h' => Unit::Hour, 'working\s+hours?|wh' => Unit::WorkingHour, 'days?|d' => Unit::Day,
        'working\s+days?|workdays?|business\s+days?|wd' => Unit::WorkingDay, 'weeks?|wks?|w' => Unit::Week, 'months?|mo' => Unit::Month,
        'years?|yrs?|y' => Unit::Year,
    ];

    private const REST = ['time', 'roll', 'clock'];

    /** {"amount", "unit"}, without a sign. */
    public static function length(): Simple
    {
        return new Simple(
            static fn (mixed $json): ?string => is_array($json) && is_int($json['amount'] ?? null) && is_string($json['unit'] ?? null)
                && ($unit = Unit::tryFrom($json['unit'])) !== null ? $unit->label(abs($json['amount'])) : null,
            self::parseLength(...), ['amount', 'unit'],
        );
    }

    /** The same with more behind it. */
    public static function due(): Simple
    {
        return new Simple(
            static function (mixed $json, Scope $scope): ?string {
                $length = self::length()->print($json, $scope, []);

                return $length === null ? null : trim("{$length} ".self::restSaid($json));
            },
            static function (Cursor $cursor): ?array {
                $length = self::parseLength($cursor);

                return $length === null ? null : [$length[0] + self::parseRest($cursor)];
            },
            ['amount', 'unit', ...self::REST],
        );
    }

    /** Only what stands behind an amount. */
    public static function rest(): Simple
    {
        return new Simple(
            static fn (mixed $json): string => self::restSaid($json),
            static fn (Cursor $cursor): array => [self::parseRest($cursor)],
            self::REST,
        );
    }

    public static function at(int $sign): Simple
    {
        $length = self::length();

        return new Simple(
            static fn (mixed $json, Scope $scope): ?string => is_array($json) && is_int($json['amount'] ?? null)
                && ($json['amount'] <=> 0) === $sign ? $length->print($json, $scope, []) : null,
            static function (Cursor $cursor) use ($sign): ?array {
                $read = self::parseLength($cursor);

                return $read === null ? null : [['amount' => $sign * $read[0]['amount']] + $read[0]];
            },
            ['amount', 'unit'],
        );
    }

    /** So many days ahead, or working days: {"days", "workingDays"}. */
    public static function ahead(): Simple
    {
        return new Simple(
            static fn (mixed $json): ?string => is_array($json) && is_int($json['days'] ?? null) && $json['days'] >= 0 && in_array(
                $json['workingDays'] ?? null,
                [null, true],
                true,
            ) ? (isset($json['workingDays']) ? Unit::WorkingDay : Unit::Day)->label($json['days']) : null,
            static function (Cursor $cursor): ?array {
                $start = $cursor->at;
                $read = self::parseLength($cursor);
                $unit = Unit::from($read[0]['unit'] ?? Unit::Day->value);
                if ($read === null || ! in_array($unit, [Unit::Day, Unit::WorkingDay], true)) {
                    $cursor->at = $start;
                    $cursor->expectSome('days or working days');

                    return null;
                }

                return [['days' => $read[0]['amount']] + ($unit === Unit::WorkingDay ? ['workingDays' => true] : [])];
            },
            ['days', 'workingDays'],
        );
    }

    /** Nothing away from a date: its unit says nothing, but stands in the file. */
    public static function none(): Simple
    {
        return new Simple(
            static fn (mixed $json): ?string => is_array($json) && ($json['amount'] ?? null) === 0
                && ($json['unit'] ?? null) === Unit::Day->value ? '' : null,
            static fn (): array => [['amount' => 0, 'unit' => Unit::Day->value]], ['amount', 'unit'],
        );
    }

    /** @return ?array{array{amount: int, unit: string}} */
    private static function parseLength(Cursor $cursor): ?array
    {
        $found = $cursor->pattern(
            '(\d{1,6})\s*('.implode(
                '|',
                array_map(static fn (string $names): string => "(?:{$names})", self::ordered()),
            ).')(?![\p{L}\p{N}])',
            'an amount of time, such as 2 working days',
        );
        if ($found === null) {
            return null;
        }
        foreach (self::SHORT as $names => $unit) {
            if (preg_match("/^(?:{$names})$/iu", $found[1 + 1]) === 1) {
                return [['amount' => (int) $found[1], 'unit' => $unit->value]];
            }
        }

        return null;
    }

    /** @return list<string> the longer ones first */
    private static function ordered(): array
    {
        $names = array_keys(self::SHORT);
        usort($names, static fn (string $one, string $other): int => strlen($other) <=> strlen($one));

        return $names;
    }

    private static function restSaid(mixed $json): string
    {
        $json = is_array($json) ? $json : [];
        $roll = is_string($json['roll'] ?? null) ? Roll::tryFrom($json['roll']) : null;
        $time = $json['time'] ?? null;

        return implode(
            ', ',
            array_filter([
                is_string($time) ? "at {$time}" : '', $roll?->label() ?? '',
                ($json['clock'] ?? null) === 'owner' ? 'by the owner’s clock' : '',
            ]),
        );
    }

    /** @return array<string, string> */
    private static function parseRest(Cursor $cursor): array
    {
        $rest = [];
        do {
            $start = $cursor->at;
            $cursor->pattern(',', ',');
            $time = isset($rest['time']) ? null : $cursor->pattern('at\s+(\d{1,2}):(\d{2})', 'at 09:00', true);
            if ($time !== null) {
                $rest['time'] = sprintf('%02d:%02d', $time[1], $time[2]);

                continue;
            }
            $roll = null;
            foreach (isset($rest['roll']) ? [] : Roll::cases() as $case) {
                $roll ??= $cursor->words($case->label()) ? $case : null;
            }
            if ($roll !== null) {
                $rest['roll'] = $roll->value;
            } elseif (! isset($rest['clock']) && $cursor->words('by the owner’s clock')) {
                $rest['clock'] = 'owner';
            } else {
                $cursor->at = $start;
                break;
            }
        } while (true);

        return $rest;
    }
}

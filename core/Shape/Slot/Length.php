<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\InKeys;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;
use VividLedger\Time\Unit;

/** A length of time, {"amount", "unit"}: "3 working days", "2h", "a week", "two hours". */
final readonly class Length implements MultiKeySlot
{
    use InKeys;

    private const UNITS = [
        'minutes?|mins?' => Unit::Minute, 'hours?|hrs?|h' => Unit::Hour,
        'working\s+hours?|work(?:ing)?[\s-]?hours?|business\s+hours?|office\s+hours?|wh' => Unit::WorkingHour, 'days?|d' => Unit::Day,
        'working\s+days?|work(?:ing)?[\s-]?days?|business\s+days?|weekdays?|wd' => Unit::WorkingDay, 'weeks?|wks?|w' => Unit::Week,
        'months?|mo' => Unit::Month, 'years?|yrs?|y' => Unit::Year,
    ];

    /** @param  bool  $inDays  whether a week that is not counted is one of seven days */
    public function __construct(private bool $inDays = false)
    {
    }

    public function keys(): array
    {
        return ['amount', 'unit'];
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        $unit = is_array($json) && is_string($json['unit'] ?? null) ? Unit::tryFrom($json['unit']) : null;

        return $unit !== null && is_int($json['amount'] ?? null) && $json['amount'] >= 0 ? $unit->label($json['amount']) : null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $number = implode('|', array_keys(Counted::WORDS));
        $found = $typed->pattern(
            $at,
            "(?:(\\d{1,6})\\s*-?|({$number}|an?|the|half\\s+an|a\\s+couple\\s+of|a\\s+few)[\\s-]+)?(".self::names().')(?![\p{L}\p{N}])',
            'an amount of time, such as 2 working days',
        );
        if ($found === null) {
            $number = $typed->pattern($at, '\d{1,6}(?![\p{L}\d])', 'an amount of time, such as 2 working days');
            if ($number !== null) {
                foreach (Unit::cases() as $unit) {
                    $typed->expect($unit->word().($number[0][0] === '1' ? '' : 's'), $number[1]);
                }
            }

            return [];
        }
        [[, $digits, $word, $name], $end] = $found;
        $unit = self::unit($name);
        $word = mb_strtolower(preg_replace('/\s+/', ' ', $word) ?? '');
        if ($digits !== '') {
            return [new Parsed(['amount' => (int) $digits, 'unit' => $unit->value], $end)];
        }
        if ($word === 'half an') {
            return $unit === Unit::Hour ? [new Parsed(['amount' => 30, 'unit' => Unit::Minute->value], $end, 1)] : [];
        }
        // How many a few are, nobody knows; and a unit by itself is an amount only behind an article.
        if ($word === 'a few' || $word === '' && ! $this->inDays) {
            return [];
        }
        $amount = Counted::WORDS[$word] ?? ($word === 'a couple of' ? 2 : 1);

        return [$this->inDays && $unit === Unit::Week && $amount === 1
            ? new Parsed(['amount' => 7 * $amount, 'unit' => Unit::Day->value], $end, 1)
            : new Parsed(['amount' => $amount, 'unit' => $unit->value], $end, 1)];
    }

    public function properties(): array
    {
        return [
            'amount' => ['type' => 'integer'],
            'unit' => ['enum' => array_map(static fn (Unit $unit): string => $unit->value, Unit::cases())],
        ];
    }

    public function required(): array
    {
        return ['amount', 'unit'];
    }

    /** The unit that goes by a name. */
    private static function unit(string $name): Unit
    {
        foreach (self::UNITS as $names => $unit) {
            if (preg_match("/^(?:{$names})$/iu", $name) === 1) {
                return $unit;
            }
        }

        return Unit::Day;
    }

    /** All names, the longer ones first. */
    private static function names(): string
    {
        $names = array_keys(self::UNITS);
        usort($names, static fn (string $one, string $other): int => strlen($other) <=> strlen($one));

        return implode('|', $names);
    }
}

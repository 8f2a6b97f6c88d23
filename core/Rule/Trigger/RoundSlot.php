<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Shape\Json;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Stepper;
use VividLedger\Shape\Typed;

/**
 * How a timetable comes round, "every 2 weeks on Monday and Friday", as the recurrence rule (RFC 5545, section 3.3.10) that
 * says the same. A rule that has no such words, or comes back from them in another order, stands as it is, in quotes.
 */
final readonly class RoundSlot implements Slot
{
    private const UNITS = ['day' => 'DAILY', 'week' => 'WEEKLY', 'month' => 'MONTHLY', 'year' => 'YEARLY'];

    private const WEEKDAYS = [
        'Monday' => 'MO', 'Tuesday' => 'TU', 'Wednesday' => 'WE', 'Thursday' => 'TH', 'Friday' => 'FR', 'Saturday' => 'SA',
        'Sunday' => 'SU',
    ];

    private const WHICH = ['the first' => '1', 'the second' => '2', 'the third' => '3', 'the fourth' => '4', 'the last' => '-1'];

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return is_string($json) && $json !== '' ? self::said($json) ?? 'by '.Typed::quote($json) : null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $by = $typed->words($at, 'by');
        $quoted = $by === null ? null : $typed->quoted($by);
        $stepper = new Stepper($typed, $at);
        $rule = self::parsed($stepper);

        return [...($quoted === null ? [] : [new Parsed(...$quoted)]), ...($rule === null ? [] : [new Parsed($rule, $stepper->at)])];
    }

    public function schema(): array
    {
        return Json::text();
    }

    private static function said(string $rule): ?string
    {
        $parts = [];
        foreach (explode(';', $rule) as $part) {
            [$name, $value] = explode('=', $part, 2) + [1 => ''];
            $parts[$name] = $value;
        }
        $unit = array_search($parts['FREQ'] ?? '', self::UNITS, true);
        $interval = $parts['INTERVAL'] ?? '1';
        $days = isset($parts['BYDAY']) ? array_map(self::day(...), explode(',', $parts['BYDAY'])) : [];
        $dates = isset($parts['BYMONTHDAY']) ? array_map(
            static fn (string $date): string => $date === '-1' ? 'the last day' : "day {$date}",
            explode(',', $parts['BYMONTHDAY']),
        ) : [];
        $on = self::listed([...$days, ...$dates]);
        $text = match (true) {
            $days !== [] && $unit === 'week' && ! isset($parts['INTERVAL']) => "every {$on}",
            default => ($interval === '1' ? "every {$unit}" : "every {$interval} {$unit}s").($on === '' ? '' : " on {$on}"),
        };
        $text .= preg_match('/^(\d{4})(\d{2})(\d{2})$/', $parts['UNTIL'] ?? '', $day) === 1 ? " until {$day[1]}-{$day[2]}-{$day[3]}" : '';
        $cursor = new Stepper(new Typed($text), 0);

        return self::parsed($cursor) === $rule && $cursor->at === strlen($text) ? $text : null;
    }

    private static function parsed(Stepper $cursor): ?string
    {
        if (! $cursor->words('every')) {
            return null;
        }
        $rule = self::weekly($cursor) ?? self::regular($cursor);
        $start = $cursor->at;
        if ($rule !== null && $cursor->words('until')) {
            $day = $cursor->pattern('(\d{4})-(\d{2})-(\d{2})', 'a day, such as 2027-12-31');
            if ($day === null) {
                $cursor->at = $start;
            } else {
                $rule .= ";UNTIL={$day[1]}{$day[2]}{$day[3]}";
            }
        }

        return $rule;
    }

    /** "Monday and Friday" */
    private static function weekly(Stepper $cursor): ?string
    {
        $days = self::several($cursor, static fn (): ?array => $cursor->label(self::WEEKDAYS));

        return $days === [] ? null : 'FREQ=WEEKLY;BYDAY='.implode(',', $days);
    }

    /** "2 months on the first Monday" */
    private static function regular(Stepper $cursor): ?string
    {
        $found = $cursor->pattern(
            '(\d{1,3}\s+)?(day|week|month|year)s?\b',
            'a day, such as Monday, or a number of days, weeks, months or years',
        );
        if ($found === null) {
            return null;
        }
        $interval = (int) $found[1];
        $rule = 'FREQ='.self::UNITS[mb_strtolower($found[2])].($interval > 1 ? ";INTERVAL={$interval}" : '');
        $start = $cursor->at;
        if (! $cursor->words('on')) {
            return $rule;
        }
        $days = self::several($cursor, static function () use ($cursor): ?array {
            $which = $cursor->label(self::WHICH);
            $day = $cursor->label(self::WEEKDAYS);

            return $day === null ? null : [($which[0] ?? '').$day[0]];
        });
        $dates = $days !== [] ? [] : self::several(
            $cursor,
            static fn (): ?array => $cursor->words('the last day') ? ['-1']
                : (($date = $cursor->pattern('day\s+(\d{1,2})\b', 'day 1')) === null ? null : [$date[1]]),
        );
        if ($days === [] && $dates === []) {
            $cursor->at = $start;

            return $rule;
        }

        return $rule.($days === [] ? ';BYMONTHDAY='.implode(',', $dates) : ';BYDAY='.implode(',', $days));
    }

    /**
     * @param  \Closure(): ?array{string}  $one
     * @return list<string>
     */
    private static function several(Stepper $cursor, \Closure $one): array
    {
        $found = [];
        do {
            $start = $cursor->at;
            $next = $found === [] || $cursor->pattern(',', ',') !== null || $cursor->words('and') ? $one() : null;
            if ($next === null) {
                $cursor->at = $start;

                return $found;
            }
            $found[] = $next[0];
        } while (true);
    }

    private static function day(string $code): string
    {
        $name = (string) array_search(substr($code, -2), self::WEEKDAYS, true);
        $which = array_search(substr($code, 0, -2), self::WHICH, true);

        return $which === false ? $name : "{$which} {$name}";
    }

    /** @param  list<string>  $parts */
    private static function listed(array $parts): string
    {
        $last = array_pop($parts);

        return $parts === [] ? (string) $last : implode(', ', $parts)." and {$last}";
    }
}

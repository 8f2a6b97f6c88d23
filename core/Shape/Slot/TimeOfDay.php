<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\Json;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** A time of day: "09:00", "9", "9am", "noon". */
final readonly class TimeOfDay implements Slot
{
    /** @param  bool  $isEnd  whether it can be the end of a day, 24:00 */
    public function __construct(private bool $isEnd = false)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return is_string($json) && preg_match('/^([01]\d|2[0-4]):[0-5]\d$/D', $json) === 1 ? $json : null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $noon = $typed->pattern($at, 'noon|midday', '09:00', 1);
        if ($noon !== null) {
            return [new Parsed('12:00', $noon[1], 1)];
        }
        $found = $typed->pattern(
            $at,
            '([01]?\d|2[0-4])(?:[:.]([0-5]\d))?(?:\s*(a\.?m\.?|p\.?m\.?|h|o’clock)(?![\p{L}\p{N}]))?(?![\p{L}\p{N}%]|[:.]\d)',
            '09:00',
            0,
        );
        if ($found === null) {
            return [];
        }
        [[, $hour, $minutes, $half], $end] = [array_pad($found[0], 4, ''), $found[1]];
        $isExact = $minutes !== '';
        $hour = (int) $hour;
        $half = strtolower(str_replace('.', '', $half));
        $minutes = $minutes === '' ? '00' : $minutes;
        if (($half === 'am' || $half === 'pm') && ($hour === 0 || $hour > 12)) {
            return [];
        }
        $hours = match (true) {
            $half === 'am' => [$hour % 12],
            $half === 'pm' => [$hour % 12 + 12],
            // "At 5" can be either; "at 05:00" can not.
            $half === '' && ! $isExact && $hour >= 1 && $hour <= 6 => [$hour, $hour + 12],
            default => [$hour],
        };

        return array_map(
            static fn (int $at): Parsed => new Parsed(sprintf('%02d:%s', $at, $minutes), $end, $half === '' && $isExact ? 0 : 1),
            $hours,
        );
    }

    public function schema(): array
    {
        return $this->isEnd ? ['type' => 'string', 'pattern' => '^(([01][0-9]|2[0-3]):[0-5][0-9]|24:00)$'] : Json::TIME;
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Shape\InKeys;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\Length;
use VividLedger\Shape\Spread;
use VividLedger\Shape\Typed;
use VividLedger\Time\Unit;

/** So many days ahead, or working days: {"days", "workingDays"}. */
final readonly class DaysAhead implements Spread
{
    use InKeys;

    public function keys(): array
    {
        return ['days', 'workingDays'];
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        $json = is_array($json) ? $json : [];
        $working = $json['workingDays'] ?? null;

        return is_int($json['days'] ?? null) && $json['days'] >= 0 && ($working === null || $working === true)
            ? ($working === true ? Unit::WorkingDay : Unit::Day)->label($json['days']) : null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        foreach ((new Length)->parse($typed, $at, $scope, $around) as $length) {
            $json = is_array($length->json) ? $length->json : [];
            if (in_array($json['unit'] ?? null, [Unit::Day->value, Unit::WorkingDay->value], true)) {
                $found[] = $length->as(
                    ['days' => $json['amount'] ?? 0] + ($json['unit'] === Unit::WorkingDay->value ? ['workingDays' => true] : []),
                );
            }
        }
        if ($found === []) {
            $typed->expect('days or working days', $at, 2);
        }

        return $found;
    }

    public function properties(): array
    {
        return ['days' => ['type' => 'integer', 'minimum' => 0, 'maximum' => SendList::MOST_DAYS], 'workingDays' => ['type' => 'boolean']];
    }

    public function required(): array
    {
        return [];
    }
}

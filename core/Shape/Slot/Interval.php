<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\InKeys;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;

/** How long lies between one time and the next: "2 days at 09:00", "day", "other day", "second week". */
final readonly class Interval implements MultiKeySlot
{
    use InKeys;

    private const UNITS = ['minute', 'hour', 'day', 'week', 'month', 'year', 'working day', 'working hour'];

    public function keys(): array
    {
        return ['amount', 'unit', 'time', 'roll', 'clock'];
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return (new Wait)->print($json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        foreach ($this->lengths($typed, $at, $scope) as $length) {
            foreach ((new DueRest)->parse($typed, $length->end, $scope, $around) as $rest) {
                $both = (is_array($length->json) ? $length->json : []) + (is_array($rest->json) ? $rest->json : []);
                $found[] = new Parsed($both, $rest->end, $length->cost + $rest->cost);
            }
        }

        return $found;
    }

    /** @return list<Parsed> */
    public function lengths(Typed $typed, int $at, Scope $scope): array
    {
        $found = (new Length)->parse($typed, $at, $scope, []);
        $times = ['' => 1, 'single ' => 1, 'other ' => 2, 'second ' => 2, 'third ' => 3, 'fourth ' => 4, 'business ' => 0, 'work ' => 0];
        foreach ($times as $word => $amount) {
            foreach ($amount === 0 ? ['day'] : self::UNITS as $unit) {
                $end = $typed->words($at, $word.$unit, 3);
                if ($end !== null) {
                    $unit = $amount === 0 ? 'working_day' : str_replace(' ', '_', $unit);
                    $found[] = new Parsed(['amount' => max(1, $amount), 'unit' => $unit], $end, 1);
                }
            }
        }

        return Parsed::distinct($found);
    }

    public function properties(): array
    {
        return (new Wait)->properties();
    }

    public function required(): array
    {
        return ['amount', 'unit'];
    }
}

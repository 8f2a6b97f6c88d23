<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Schema\FieldType;
use VividLedger\Shape\InKeys;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;

/** The moment at hand: "today" for a date, "now" for a moment. */
final readonly class StampWord implements MultiKeySlot
{
    use InKeys;

    private const NOW = [
        'now', 'right now', 'the current time', 'the current moment', 'the time', 'this moment', 'the present time',
        'the current date and time', 'the time now', 'the time right now', 'the moment',
    ];

    private const TODAY = ['today', 'today’s date', 'the current date', 'the current day', 'the date', 'the date of today', 'this day'];

    /** @param  bool  $isLoose  whether other words for it are heard too */
    public function __construct(private bool $isLoose = false)
    {
    }

    public function keys(): array
    {
        return [];
    }

    public function print(mixed $json, Scope $scope, array $around): string
    {
        return $scope->field?->type === FieldType::Date ? 'today' : 'now';
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        foreach ($this->isLoose ? [...self::NOW, ...self::TODAY] : ['now', 'today'] as $words) {
            $end = $typed->words($at, $words, $this->isLoose ? 3 : 0);
            if ($end !== null) {
                $found[] = new Parsed([], $end);
            }
        }

        return $found;
    }

    public function properties(): array
    {
        return [];
    }

    public function required(): array
    {
        return [];
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Condition\Given;

use VividLedger\Schema\FieldType;
use VividLedger\Shape\InKeys;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;

/** What a moving date is counted from: today for a date, now for a moment. */
final readonly class MomentBase implements MultiKeySlot
{
    use InKeys;

    public function keys(): array
    {
        return [];
    }

    public function print(mixed $json, Scope $scope, array $around): string
    {
        return self::base($scope);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        foreach (['today', 'now'] as $word) {
            $end = $typed->words($at, $word);
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

    private static function base(Scope $scope): string
    {
        return $scope->field?->type === FieldType::Date ? 'today' : 'now';
    }
}

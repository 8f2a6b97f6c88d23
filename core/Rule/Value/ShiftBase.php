<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\FieldPath;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\Typed;

/** What a date is counted from: what it is, now, or another date. */
final readonly class ShiftBase implements Slot
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return match ($json) {
            'now' => $scope->field?->type === FieldType::Date ? 'today' : 'now',
            'itself' => 'what it is',
            default => (new FieldPath)->print($json, $scope, $around),
        };
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return [
            ...Labels::of(
                ['now' => 'now', 'today' => 'now', 'what it is' => 'itself'],
                ['itself' => 'itself', 'its current value' => 'itself'],
            )
                ->parse($typed, $at, $scope, $around),
            ...(new FieldPath(static fn (Field $field): bool => $field->type->isMoment()))->parse($typed, $at, $scope, $around),
        ];
    }

    public function schema(): array
    {
        return ['type' => 'string'];
    }
}

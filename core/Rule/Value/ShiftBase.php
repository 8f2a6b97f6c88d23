<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\FieldPath;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;

/** What a date is counted from: what it is, now, or another date. */
final readonly class ShiftBase implements Worded
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

    public function read(Context $context, Node $node, Filled $around): ?DateBase
    {
        return DateBase::read($context, $node, $context->field());
    }

    /** Where nothing is said, it is what the field holds. */
    public function more(Context $context, Node $node, Filled $around): void
    {
        DateBase::read($context, $node, $context->field());
    }

    public function schema(): array
    {
        return ['type' => 'string'];
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\FieldReader;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Json;
use VividLedger\Shape\Node;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\FieldValue;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;

/** A value of the field that is set. */
final readonly class ValueToSet implements Worded
{
    /** @param  bool  $isMember  whether it is one of the values of a set */
    public function __construct(private bool $isMember = false)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return $scope->field === null ? null : FieldValue::ofField($scope->field)->print($json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return $scope->field === null ? [] : FieldValue::ofField($scope->field)->parse($typed, $at, $scope, $around);
    }

    public function read(Context $context, Node $node, Filled $around): string|int|bool|null
    {
        return FieldReader::value($context, $context->field(), $node, Editor::value($context->of?->name, $context->field()));
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function schema(): array
    {
        return $this->isMember ? Json::text() : Json::ref('value');
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Engine\Performance;
use VividLedger\Record\Record;
use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\Edit;
use VividLedger\Shape\FieldReader;
use VividLedger\Shape\Node;

/** A value written in the rule. */
final readonly class FixedValue implements AssignedValue
{
    public function __construct(public string|int|bool $value)
    {
    }

    public static function kind(): string
    {
        return 'value';
    }

    public static function fits(Field $field): bool
    {
        return true;
    }

    public static function label(Field $field): ?string
    {
        return null;
    }

    public static function read(Context $context, Node $node, Field $field): ?self
    {
        $value = FieldReader::value($context, $field, $node->child('value'), Edit::SetValue, $node->at);

        return $value === null ? null : new self($value);
    }

    public function for(Field $field, Performance $performance, ?Record $target): string|int|bool
    {
        return $this->value;
    }
}

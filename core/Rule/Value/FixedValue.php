<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Engine\Performance;
use VividLedger\Record\Record;
use VividLedger\Rule\Reading\Context;
use VividLedger\Rule\Reading\Edit;
use VividLedger\Rule\Reading\FieldReader;
use VividLedger\Rule\Reading\Node;
use VividLedger\Schema\Field;

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

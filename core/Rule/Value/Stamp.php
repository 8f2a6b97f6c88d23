<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Engine\Performance;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Edit;
use VividLedger\Shape\Node;
use VividLedger\Shape\WordRole;

/** The moment of the firing: now, or today in the company's zone. */
final readonly class Stamp implements AssignedValue
{
    public static function kind(): string
    {
        return 'now';
    }

    public static function fits(Field $field): bool
    {
        return $field->type->isMoment();
    }

    public static function label(Field $field): ?string
    {
        return null;
    }

    public static function read(Context $context, Node $node, Field $field): self
    {
        $context->word($field->type === FieldType::Date ? 'today' : 'now', WordRole::Value, $node->at, Edit::SetValue);

        return new self;
    }

    public function for(Field $field, Performance $performance, ?Record $target): string
    {
        return $field->type === FieldType::Date
            ? $performance->now->setTimezone($performance->zone)->format('Y-m-d')
            : Value::instantText($performance->now);
    }
}

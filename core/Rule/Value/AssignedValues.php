<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\Edit;
use VividLedger\Shape\Node;

/** All kinds of assigned value, in the order they are offered. A new kind is a new file and one line here. */
final class AssignedValues
{
    /** @var list<class-string<AssignedValue>> */
    public const ALL = [
        FixedValue::class, Stamp::class, Shifted::class, FoundPerson::class, Added::class, Subtracted::class, Multiplied::class,
        WithMember::class, WithoutMember::class,
        WrittenText::class, AppendedLine::class, CopiedValue::class, Reckoned::class, ThisOne::class, MadeOne::class, Cleared::class,
    ];

    public static function read(Context $context, Node $node, Field $field): ?AssignedValue
    {
        foreach (self::ALL as $value) {
            if ($value::kind() !== $node->kind()) {
                continue;
            }
            if (! $value::fits($field)) {
                return $context->gap(
                    'choose a value',
                    $node->at,
                    Edit::SetValue,
                    'wrong_type',
                    "That does not fit {$field->label}. Choose another value.",
                );
            }

            return $value::read($context, $node, $field);
        }

        return $context->gap('choose a value', $node->at, Edit::SetValue, 'missing', "Choose what {$field->label} becomes.");
    }
}

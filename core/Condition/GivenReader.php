<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Condition\Given\Given;
use VividLedger\Condition\Given\GivenField;
use VividLedger\Condition\Given\GivenMoment;
use VividLedger\Condition\Given\GivenPerson;
use VividLedger\People\PersonExpressions;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Edit;
use VividLedger\Shape\Node;
use VividLedger\Shape\Reads;
use VividLedger\Shape\TimeReader;

/** Reads what a field is compared with when the rule file gives an object instead of a value. */
final class GivenReader
{
    public static function read(Context $context, Node $node, Field $field, Edit $edit): ?Given
    {
        $given = match ($node->kind()) {
            GivenField::kind() => self::field($context, $node, $field, $edit),
            GivenPerson::kind() => self::person($context, $node, $field, $edit),
            GivenMoment::kind() => self::moment($context, $node, $field, $edit),
            default => $context->gap('choose a value', $node->at, $edit, 'wrong_type', "Choose what {$field->label} is compared with."),
        };
        if ($given !== null) {
            $context->word($given->wording(), $given->role(), $node->at, $edit);
        }

        return $given;
    }

    private static function field(Context $context, Node $node, Field $field, Edit $edit): ?GivenField
    {
        $name = $node->child('path')->text() ?? '';
        $path = $context->schema->path($context->type, $name);
        if ($path === null) {
            return $context->gap(
                $name === '' ? 'choose a field' : $name,
                $node->at,
                $edit,
                'unknown_field',
                "{$context->type->label} has no field ‘{$name}’. Choose another.",
            );
        }

        return GivenField::alike($field, $path->field) ? new GivenField($path)
            : $context->gap(
                $path->label(),
                $node->at,
                $edit,
                'wrong_type',
                "{$field->label} and {$path->label()} hold different kinds of value.",
            );
    }

    private static function person(Context $context, Node $node, Field $field, Edit $edit): ?GivenPerson
    {
        $person = $field->type === FieldType::Person ? PersonExpressions::read($context, $node->child('person')) : null;

        return $person === null ? $context->gap(
            'choose a person',
            $node->at,
            $edit,
            'wrong_type',
            "Choose whom {$field->label} is compared with.",
        ) : new GivenPerson($person);
    }

    private static function moment(Context $context, Node $node, Field $field, Edit $edit): ?GivenMoment
    {
        $amount = $field->type->isMoment() ? TimeReader::amount($node) : null;

        return $amount === null || ($field->type === FieldType::Date && $amount->unit->isShort())
            ? $context->gap(
                'choose a date',
                $node->at,
                $edit,
                'wrong_type',
                "Give a whole number and a unit, such as 7 days, for {$field->label}.",
            )
            : new GivenMoment($amount, $context->zone, $field->type === FieldType::Date, $context->directory->calendar(null));
    }
}

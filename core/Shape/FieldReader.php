<?php

declare(strict_types=1);

namespace VividLedger\Shape;

use VividLedger\Record\InvalidValue;
use VividLedger\Record\Value;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;

/** Reads the names of fields and the values that go with them. */
final class FieldReader
{
    public static function path(Context $context, Node $node, Edit $edit): ?Path
    {
        $name = $node->text();
        if ($name === null) {
            return $context->gap('choose a field', $node->at, $edit, 'missing', 'Choose a field.');
        }
        $path = $context->schema->path($context->type, $name);
        if ($path === null) {
            return $context->gap(
                $name,
                $node->at,
                $edit,
                'unknown_field',
                "{$context->type->label} has no field ‘{$name}’. Choose another.",
            );
        }
        $context->word($path->label(), WordRole::Field, $node->at, $edit);

        return $path;
    }

    /** A field of the record itself that a rule may set. */
    public static function settable(Context $context, Node $node): ?Field
    {
        $name = $node->text();
        if ($name === null) {
            return $context->gap('choose a field', $node->at, Edit::SetField, 'missing', 'Choose the field to set.');
        }
        $field = $context->type->field($name);
        if ($field === null) {
            return $context->gap(
                $name,
                $node->at,
                Edit::SetField,
                'unknown_field',
                "{$context->type->label} has no field ‘{$name}’. Choose another.",
            );
        }
        $context->word($field->label, WordRole::Field, $node->at, Edit::SetField);
        if (! $field->isSettable()) {
            return $context->problem(
                $node->at,
                'not_settable',
                $field->system ? "{$field->label} is kept by the application and cannot be set."
                    : "{$field->label} is computed from other fields and cannot be set.",
            );
        }

        return $field;
    }

    /**
     * A value of a field as a rule file writes it: people by handle, records by number, the rest as it is kept.
     *
     * @return string|int|bool|null null when it cannot be read; the problem is noted
     */
    public static function value(Context $context, Field $field, Node $node, Edit $edit, ?string $at = null): string|int|bool|null
    {
        $at ??= $node->at;
        if ($node->isMissing()) {
            return $context->gap('choose a value', $at, $edit, 'missing', "Give a value for {$field->label}.");
        }
        $shown = is_scalar($node->raw) ? (string) $node->raw : '?';
        $value = match ($field->type) {
            FieldType::Person => $context->directory->personByHandle($shown)?->id,
            FieldType::Reference => self::recordId($context, $field, $shown),
            default => self::plain($context, $field, $node, $edit, $at),
        };
        if ($value === null) {
            if ($field->type === FieldType::Person || $field->type === FieldType::Reference) {
                $context->gap($shown, $at, $edit, 'unknown_value', $field->type === FieldType::Person
                    ? "There is no person ‘{$shown}’." : "There is no record ‘{$shown}’.");
            }

            return null;
        }
        $text = $context->display->of($field, $value);
        $context->word(
            $field->type->isText() ? "“{$text}”" : $text,
            $field->type === FieldType::Person ? WordRole::Person : WordRole::Value,
            $at,
            $edit,
        );

        return $value;
    }

    private static function plain(Context $context, Field $field, Node $node, Edit $edit, string $at): string|int|bool|null
    {
        try {
            return Value::of($field, $node->raw);
        } catch (InvalidValue $invalid) {
            return $context->gap(is_scalar($node->raw) ? (string) $node->raw : '?', $at, $edit, $invalid->reason, $invalid->getMessage());
        }
    }

    private static function recordId(Context $context, Field $field, string $number): ?int
    {
        $type = $context->schema->type($field->target ?? '');
        $id = $type?->idOf($number);

        return $type !== null && $id !== null && $context->directory->title($type->name, $id) !== null ? $id : null;
    }
}

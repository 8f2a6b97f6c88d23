<?php

declare(strict_types=1);

namespace VividLedger\Shape;

use VividLedger\Record\InvalidValue;
use VividLedger\Record\Value;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Words\Words;

/** Reads the names of fields and the values that go with them. */
final class FieldReader
{
    public static function path(Context $context, Node $node, Editor $editor, string $missing = 'Choose a field.'): ?Path
    {
        $name = $node->text();
        if ($name === null) {
            return $context->gap('choose a field', $node->at, $editor, 'missing', $missing);
        }
        $path = $context->schema->path($context->type, $name);
        if ($path === null) {
            return $context->gap(
                $name,
                $node->at,
                $editor,
                'unknown_field',
                Words::say('{type} has no field ‘{name}’. Choose another.', type: $context->type->label, name: $name),
            );
        }
        $context->word($path->label(), WordRole::Field, $node->at, $editor);

        return $path;
    }

    /** The record type that what is looked at is a field of, by name; null for a mere number of records. */
    public static function typeOf(Context $context, Path $path): ?string
    {
        return $path->hops === [] ? $context->type->name : $context->schema->behind($path->hops[count($path->hops) - 1])?->name;
    }

    /**
     * A value of a field as a rule file writes it: people by handle, records by number, the rest as it is kept.
     *
     * @return string|int|bool|null null when it cannot be read; the problem is noted
     */
    public static function value(Context $context, Field $field, Node $node, Editor $editor, ?string $at = null): string|int|bool|null
    {
        $at ??= $node->at;
        if ($node->isMissing()) {
            return $context->gap('choose a value', $at, $editor, 'missing', Words::say('Give a value for {field}.', field: $field->label));
        }
        $shown = is_scalar($node->raw) ? (string) $node->raw : '?';
        $value = match ($field->type) {
            FieldType::Person => $context->directory->personByHandle($shown)?->id,
            FieldType::Reference => self::recordId($context, $field, $shown),
            default => self::plain($context, $field, $node, $editor, $at),
        };
        if ($value === null) {
            if ($field->type === FieldType::Person || $field->type === FieldType::Reference) {
                $context->gap($shown, $at, $editor, 'unknown_value', $field->type === FieldType::Person
                    ? Words::say('There is no person ‘{name}’.', name: $shown) : Words::say('There is no record ‘{name}’.', name: $shown));
            }

            return null;
        }
        $text = $context->display->of($field, $value);
        $context->word(
            $field->type->isText() ? "“{$text}”" : $text,
            $field->type === FieldType::Person ? WordRole::Person : WordRole::Value,
            $at,
            $editor,
        );

        return $value;
    }

    private static function plain(Context $context, Field $field, Node $node, Editor $editor, string $at): string|int|bool|null
    {
        try {
            return Value::of($field, $node->raw);
        } catch (InvalidValue $invalid) {
            return $context->gap(is_scalar($node->raw) ? (string) $node->raw : '?', $at, $editor, $invalid->reason, $invalid->getMessage());
        }
    }

    private static function recordId(Context $context, Field $field, string $number): ?int
    {
        $type = $context->schema->type($field->target ?? '');
        $id = $type?->idOf($number);

        return $type !== null && $id !== null && $context->directory->title($type->name, $id) !== null ? $id : null;
    }
}

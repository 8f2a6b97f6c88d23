<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Support\Collection;
use VividLedger\Record\Record;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;

/** Between a row of a record type's table and the values of the core. */
final class Columns
{
    public static function record(RecordType $type, object $row): Record
    {
        $values = [];
        $columns = (array) $row;
        foreach ($type->fields as $name => $field) {
            $values[$name] = self::value($field, $columns[$name] ?? null);
        }

        return new Record($type->name, (int) $columns['id'], (int) $columns['version'], $values);
    }

    public static function value(Field $field, mixed $column): string|int|bool|null
    {
        if ($column === null) {
            return null;
        }

        return match ($field->type) {
            FieldType::Tick => (bool) $column,
            FieldType::Person, FieldType::Reference => (int) $column,
            FieldType::DateTime => str_replace(' ', 'T', (string) $column).'Z',
            default => (string) $column,
        };
    }

    public static function column(Field $field, string|int|bool|null $value): string|int|null
    {
        if (is_bool($value)) {
            return (int) $value;
        }

        return $field->type === FieldType::DateTime && is_string($value) ? self::moment($value) : $value;
    }

    /** A UTC instant as a DATETIME column keeps it. */
    public static function moment(string|\DateTimeImmutable $instant): string
    {
        return is_string($instant) ? strtr(
            $instant,
            ['T' => ' ', 'Z' => ''],
        ) : $instant->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d H:i:s');
    }

    /** The moment that a DATETIME column keeps. */
    public static function instant(string $column): \DateTimeImmutable
    {
        return new \DateTimeImmutable("{$column}Z");
    }

    /** What a JSON column keeps, letters and slashes as they are. */
    public static function json(mixed $value): string
    {
        return json_encode($value, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES);
    }

    /**
     * A column of ids, as plucked from a query.
     *
     * @param  Collection<array-key, mixed>  $column
     * @return list<int>
     */
    public static function ints(Collection $column): array
    {
        return array_values(array_map(static fn (mixed $id): int => is_numeric($id) ? (int) $id : 0, $column->all()));
    }

    /**
     * A column of texts, as plucked from a query.
     *
     * @param  Collection<array-key, mixed>  $column
     * @return list<string>
     */
    public static function texts(Collection $column): array
    {
        return array_values(array_map(static fn (mixed $text): string => is_scalar($text) ? (string) $text : '', $column->all()));
    }

    /** A DATETIME column as the API writes it. */
    public static function iso(?string $column): ?string
    {
        return $column === null ? null : str_replace(' ', 'T', $column).'Z';
    }
}

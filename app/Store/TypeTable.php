<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use Illuminate\Database\Schema\Blueprint;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;

/** The real table of a record type, with a typed column for each field. */
final class TypeTable
{
    public static function name(string $type): string
    {
        return "records_{$type}";
    }

    public static function create(Connection $db, RecordType $type): void
    {
        $db->getSchemaBuilder()->create(self::name($type->name), static function (Blueprint $table) use ($type): void {
            $table->id();
            $table->unsignedInteger('version')->default(1);
            foreach ($type->fields as $field) {
                self::column($table, $field);
            }
            foreach ($type->fields as $field) {
                if (self::isIndexed($type, $field)) {
                    $table->index($field->name);
                }
            }
        });
    }

    private static function column(Blueprint $table, Field $field): void
    {
        $column = match ($field->type) {
            FieldType::LongText => $table->text($field->name),
            FieldType::Text, FieldType::Email, FieldType::Phone, FieldType::Link => $table->string($field->name, $field->maxLength),
            FieldType::Number, FieldType::Money, FieldType::Percent => $table->decimal($field->name, 15 + $field->scale, $field->scale),
            FieldType::Tick => $table->boolean($field->name)->default(false),
            FieldType::Date => $table->date($field->name),
            FieldType::DateTime => $table->dateTime($field->name),
            FieldType::Choice => $table->string($field->name, 64)->charset('ascii')->collation('ascii_bin'),
            FieldType::Person, FieldType::Reference => $table->unsignedBigInteger($field->name),
        };
        if ($field->type !== FieldType::Tick) {
            $column->nullable();
        }
    }

    /** What lists sort by and conditions narrow by. */
    private static function isIndexed(RecordType $type, Field $field): bool
    {
        return $field->name === $type->title || $field->type->isNamed() || $field->type->isMoment() || $field->type === FieldType::Email;
    }
}

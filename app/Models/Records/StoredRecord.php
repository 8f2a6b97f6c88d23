<?php

declare(strict_types=1);

namespace App\Models\Records;

use App\Models\Casts\Instant;
use App\Models\LedgerModel;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;

/**
 * A record of any type. Types are made while the application runs, so the model is told its table, and its casts by the fields.
 *
 * @property int $id
 * @property int $version
 */
final class StoredRecord extends LedgerModel
{
    /** @return self the model of a type, to ask for its records */
    public static function of(RecordType|string $type): self
    {
        $model = (new self)->setTable(self::tableOf(is_string($type) ? $type : $type->name));

        return is_string($type) ? $model : $model->mergeCasts(self::castsOf($type));
    }

    /** The rows of a type as the database gives them. */
    public static function rowsOf(RecordType|string $type): Builder
    {
        return DB::table(self::tableOf(is_string($type) ? $type : $type->name));
    }

    public static function tableOf(string $type): string
    {
        return "records_{$type}";
    }

    /** Ids come from a sequence, because rules have to know the id of a record they make before it is written. */
    public static function sequenceOf(string $type): string
    {
        return "records_{$type}_ids";
    }

    /** @return array<string, string> */
    private static function castsOf(RecordType $type): array
    {
        $casts = [];
        foreach ($type->fields as $name => $field) {
            $casts[$name] = match ($field->type) {
                FieldType::Tick => 'boolean',
                FieldType::Person, FieldType::Reference => 'integer',
                FieldType::DateTime => Instant::class,
                FieldType::Number, FieldType::Money, FieldType::Percent => "decimal:{$field->scale}",
                default => 'string',
            };
        }

        return $casts;
    }
}

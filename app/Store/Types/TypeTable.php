<?php

declare(strict_types=1);

namespace App\Store\Types;

use App\Models\Records\StoredRecord;
use App\Store\DomainError;
use App\Store\RefusedFor;
use Illuminate\Database\Connection;
use Illuminate\Database\Schema\Blueprint;
use VividLedger\Listing\Column;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** The table of a record type: a column for each field, indexes where lists and conditions look, and a sequence for the ids. */
final class TypeTable
{
    /** Name of the column that says whose a record is, and of its index. */
    public const BELONGING = 'belongs_to';

    /** Name of the column that says since when a record has been at its stage, and of its index: no field is ever called so. */
    public const SINCE = '_stage_since';

    /** What a page of the database has room for, whatever the fields hold. */
    public const MOST_FIELDS = 180;

    /** A row has 65,535 bytes, whatever stands in it; so many are for texts. */
    private const WIDEST = 50_000;

    /** A table has 64 indexes, of which some are left for what may not be there twice. */
    private const MOST_INDEXES = 48;

    private const CHOICE_LENGTH = 64;

    public static function create(Connection $db, RecordType $type): void
    {
        $table = StoredRecord::tableOf($type->name);
        $sequence = StoredRecord::sequenceOf($type->name);
        if ($db->getSchemaBuilder()->hasTable($table)) {
            // A try before this one was cut short behind it: it has no records, for nobody knew of it.
            return;
        }
        // Without a cache a restart leaves no gap of a thousand numbers; by 0 it counts in the steps of its database node.
        $db->statement("CREATE OR REPLACE SEQUENCE `{$sequence}` START WITH 1 INCREMENT BY 0 NOCACHE");
        $db->getSchemaBuilder()->create($table, static function (Blueprint $blueprint) use ($type): void {
            $blueprint->unsignedBigInteger('id')->primary();
            $blueprint->unsignedInteger('version')->default(1);
            [$width, $indexes] = [0, 1];
            foreach ($type->fields as $field) {
                $width += self::width($field);
                self::column($blueprint, $field, $width <= self::WIDEST);
                if (self::isIndexed($type, $field) && $width <= self::WIDEST && ++$indexes <= self::MOST_INDEXES) {
                    $blueprint->index($field->name);
                }
            }
        });
        foreach ($type->fields as $field) {
            if ($field->unique) {
                self::unique($db, $type->name, $field->name, true);
            }
        }
        self::addBelonging($db, $type->name, $type->owner);
        self::addSince($db, $type->name);
    }

    /** Whose a record is: what rights go by. Not stored; the index of it is. */
    public static function addBelonging(Connection $db, string $type, string $owner): void
    {
        $table = StoredRecord::tableOf($type);
        $db->statement("ALTER TABLE `{$table}` ADD COLUMN IF NOT EXISTS `belongs_to` BIGINT UNSIGNED "
            ."AS (COALESCE(`{$owner}`, `created_by`)) VIRTUAL, "
            .'ADD INDEX IF NOT EXISTS `belongs_to` (`belongs_to`)');
    }

    /** Since when a record has been at its stage: whoever writes records keeps it. */
    public static function addSince(Connection $db, string $type): void
    {
        $db->statement('ALTER TABLE `'.StoredRecord::tableOf($type).'` ADD COLUMN IF NOT EXISTS `_stage_since` DATETIME NULL, '
            .'ADD INDEX IF NOT EXISTS `_stage_since` (`_stage_since`)');
    }

    /** The index by which rows come in the order of a column of a list; null where there is none. */
    public static function orderedBy(RecordType $type, ?string $field): ?string
    {
        if ($field === null || $field === Column::NUMBER) {
            return 'PRIMARY';
        }
        if ($field === Column::SINCE) {
            return self::SINCE;
        }
        $known = $type->field($field);

        return $known !== null && self::isIndexed($type, $known) ? StoredRecord::tableOf($type->name)."_{$field}_index" : null;
    }

    /** @return list<string> names of the columns there are, whoever made them */
    public static function columns(Connection $db, string $type): array
    {
        return $db->getSchemaBuilder()->getColumnListing(StoredRecord::tableOf($type));
    }

    /**
     * Adds a column while everybody goes on reading and writing: it is new to the table, not to its rows.
     *
     * @param  array<string, mixed>  $field  as a definition has it
     */
    public static function addColumn(Connection $db, string $type, string $name, array $field): void
    {
        $read = Definition::read($type, [
            'label' => '', 'plural' => '', 'prefix' => '', 'title' => '', 'owner' => '', 'fields' => [$name => $field],
        ]);
        $table = StoredRecord::tableOf($type);
        $fits = self::widthOf($db, $table) + self::width($read->fields[$name]) <= self::WIDEST;
        $isIndexed = $fits && self::isIndexed($read, $read->fields[$name])
            && count($db->getSchemaBuilder()->getIndexes($table)) < self::MOST_INDEXES;
        $db->getSchemaBuilder()->table($table, static function (Blueprint $blueprint) use ($read, $name, $fits, $isIndexed): void {
            self::column($blueprint, $read->fields[$name], $fits);
            if ($isIndexed) {
                $blueprint->index($name);
            }
        });
    }

    /** Takes away columns that nothing has named, and that nobody has written to. */
    public static function dropColumns(Connection $db, string $type, string ...$names): void
    {
        if ($names !== []) {
            $db->getSchemaBuilder()->dropColumns(StoredRecord::tableOf($type), $names);
        }
    }

    /** Takes away the table of a type that nothing has named, and that has no records. */
    public static function drop(Connection $db, string $type): void
    {
        $db->getSchemaBuilder()->dropIfExists(StoredRecord::tableOf($type));
        $db->statement('DROP SEQUENCE IF EXISTS `'.StoredRecord::sequenceOf($type).'`');
    }

    /** Bytes of a row that its texts take up at most, where they stand in it. */
    private static function widthOf(Connection $db, string $table): int
    {
        return (int) $db->scalar('SELECT SUM(character_octet_length) FROM information_schema.columns WHERE table_schema = DATABASE() '
            .'AND table_name = ? AND data_type = ?', [$table, 'varchar']);
    }

    private static function width(Field $field): int
    {
        return match ($field->type) {
            FieldType::Text, FieldType::Email, FieldType::Phone, FieldType::Link, FieldType::Choices,
            FieldType::Tags => 4 * $field->maxLength,
            FieldType::Choice => self::CHOICE_LENGTH,
            default => 0,
        };
    }

    /**
     * No two records have the same in a column, or may again.
     *
     * @return int how many values stand in more than one record; then nothing is changed
     */
    public static function unique(Connection $db, string $type, string $name, bool $isUnique): int
    {
        $table = StoredRecord::tableOf($type);
        $twice = $db->table($table)->whereNotNull($name)->groupBy($name)->havingRaw('COUNT(*) > 1')->select($name);
        if ($isUnique && count($db->getSchemaBuilder()->getIndexes($table)) >= self::MOST_INDEXES + 12) {
            throw DomainError::at('/unique', Words::say('So many fields are looked up by their values that no more can be.'),
                RefusedFor::Conflict);
        }
        $doubles = $isUnique ? $db->query()->fromSub($twice, 'twice')->count() : 0;
        if ($doubles === 0) {
            $db->statement($isUnique ? "ALTER TABLE `{$table}` ADD UNIQUE INDEX IF NOT EXISTS `unique_{$name}` (`{$name}`)"
                : "ALTER TABLE `{$table}` DROP INDEX IF EXISTS `unique_{$name}`");
        }

        return $doubles;
    }

    /** @param  bool  $fits  whether a row has room for it; a text for which there is none is kept beside the row */
    private static function column(Blueprint $table, Field $field, bool $fits): void
    {
        $column = match ($field->type) {
            FieldType::LongText => $table->text($field->name),
            FieldType::Text, FieldType::Email, FieldType::Phone, FieldType::Link, FieldType::Choices, FieldType::Tags => $fits
                ? $table->string($field->name, $field->maxLength) : $table->text($field->name),
            FieldType::Number, FieldType::Money, FieldType::Percent => $table->decimal($field->name, 15 + $field->scale, $field->scale),
            FieldType::Tick => $table->boolean($field->name)->default(false),
            FieldType::Date => $table->date($field->name),
            FieldType::DateTime => $table->dateTime($field->name),
            FieldType::Choice => $table->string($field->name, self::CHOICE_LENGTH)->charset('ascii')->collation('ascii_bin'),
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

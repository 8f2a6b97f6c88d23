<?php

declare(strict_types=1);

namespace VividLedger\Listing;

use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;

/** Reads a view as it is kept. A field may have gone since: what names it is left out and told, and the rest holds. */
final readonly class ListViewReader
{
    public const MOST_COLUMNS = 30;

    public const MOST_SORTS = 4;

    private Columns $columns;

    public function __construct(Schema $schema, private RecordType $type)
    {
        $this->columns = new Columns($schema, $type);
    }

    /** @param  array<array-key, mixed>  $kept  columns, sort, sums: lists of names; group and layout: a name */
    public function read(array $kept): ListView
    {
        $gone = [];
        $columns = self::each($kept['columns'] ?? [], self::MOST_COLUMNS, $this->columns->named(...), $gone);
        $sorts = self::each($kept['sort'] ?? [], self::MOST_SORTS, $this->columns->sort(...), $gone);
        $sums = self::each($kept['sums'] ?? [], self::MOST_SORTS, $this->summed(...), $gone);
        $by = is_string($kept['group'] ?? null) && $kept['group'] !== '' ? $kept['group'] : null;
        $group = $by === null ? null : $this->grouped($by);
        if ($by !== null && $group === null) {
            $gone[] = $by;
        }
        $layout = Layout::tryFrom(is_string($kept['layout'] ?? null) ? $kept['layout'] : '') ?? Layout::Table;

        return new ListView(
            columns: $columns === [] ? $this->columns->usual() : $columns, sorts: $sorts, group: $group, sums: $sums,
            layout: $layout === Layout::Board && $this->type->stage() === null ? Layout::Table : $layout,
            gone: array_values(array_unique($gone)),
        );
    }

    /** A number field of the record itself. */
    private function summed(string $name): ?Field
    {
        $field = $this->type->field($name);

        return $field?->type->isDecimal() === true ? $field : null;
    }

    /** Rows are grouped by what few values stand for: choices, people, records, ticks. */
    private function grouped(string $name): ?Column
    {
        $column = $this->columns->named($name);
        $field = $column?->path?->field;

        return $field !== null && ($field->type->isNamed() || $field->type === FieldType::Tick) ? $column : null;
    }

    /**
     * @template T of object
     *
     * @param  \Closure(string): ?T  $read
     * @param  list<string>  $gone  what means nothing is added here
     * @return list<T>
     */
    private static function each(mixed $given, int $most, \Closure $read, array &$gone): array
    {
        $found = [];
        foreach (array_slice(is_array($given) ? array_values(array_filter($given, is_string(...))) : [], 0, $most) as $name) {
            $one = $read($name);
            if ($one === null) {
                $gone[] = $name;
            } else {
                $found[] = $one;
            }
        }

        return $found;
    }
}

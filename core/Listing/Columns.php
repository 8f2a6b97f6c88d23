<?php

declare(strict_types=1);

namespace VividLedger\Listing;

use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;
use VividLedger\Words\Words;

/** The columns that a list of one record type can have, by the names under which views keep them. */
final readonly class Columns
{
    public function __construct(private Schema $schema, private RecordType $type)
    {
    }

    /** @return ?Column null when there is none of that name, or no more */
    public function named(string $written): ?Column
    {
        [$of, $width] = Column::parted($written);
        $stage = $this->type->stage();
        $label = match (true) {
            $of === Column::NUMBER => Words::say('No.'),
            $of === Column::SINCE => $stage === null ? null : Words::say('{stage} since', stage: $stage->label),
            $of === Column::NEXT => Words::say('Next line'),
            default => null,
        };
        if ($label !== null) {
            return new Column($of, null, $label, $width);
        }
        $path = $this->schema->path($this->type, $of);

        return $path === null ? null : new Column($of, $path, $path->label(), $width);
    }

    /** @return ?Sort null when there is no such column, or none that rows can be sorted by; "-due" is backwards */
    public function sort(string $written): ?Sort
    {
        $column = $this->named(ltrim($written, '-'));

        return $column?->isSortable() === true ? new Sort($column, str_starts_with($written, '-')) : null;
    }

    /** @return list<Column> what a list shows that nobody has chosen columns for */
    public function usual(): array
    {
        $columns = $this->type->columns;
        // A date stands in the margin; the number comes first, or right behind it.
        $isDate = isset($columns[0]) && $this->type->field($columns[0])?->type->isMoment() === true;
        array_splice($columns, $isDate ? 1 : 0, 0, [Column::NUMBER]);
        if ($this->type->stage() !== null) {
            $columns[] = Column::SINCE;
        }

        return array_values(array_filter(array_map($this->named(...), $columns)));
    }
}

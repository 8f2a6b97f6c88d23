<?php

declare(strict_types=1);

namespace App\Store\Lists;

use App\Models\Columns;
use App\Store\Access\AccessScope;
use App\Store\CsvLine;
use App\Store\People\PeopleStore;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use App\Store\Types\TypeTable;
use Illuminate\Database\Query\Builder;
use VividLedger\Condition\Condition;
use VividLedger\Listing\Column;
use VividLedger\Record\Display;
use VividLedger\Rights\Act;
use VividLedger\Schema\Field;
use VividLedger\Schema\Path;
use VividLedger\Schema\RecordType;

/** Records as a file (RFC 4180, UTF-8), of those that whoever asks may take out, read and written piece by piece. */
final readonly class RecordFile
{
    private const PIECE = 500;

    public function __construct(private RecordList $list, private Company $company, private AccessScope $inSight,
        private SchemaStore $schemas)
    {
    }

    /** How many records the file will have. */
    public function count(RecordType $type, ?Condition $condition, string $search): int
    {
        return $this->rows($type, $condition, $search)->count();
    }

    /**
     * @param  ?list<Column>  $columns  null for the number and every field
     * @return iterable<string> lines, the first with the labels of the columns
     */
    public function lines(RecordType $type, ?Condition $condition, string $search, ?array $columns = null): iterable
    {
        $columns = array_values(array_filter($columns ?? self::all($type), static fn (Column $one): bool => $one->of !== Column::NEXT));
        $names = new PeopleStore($this->schemas, $this->inSight);
        $display = new Display($names, $this->company->zone());
        yield CsvLine::of(array_map(static fn (Column $column): string => $column->label, $columns));
        $rows = $this->rows($type, $condition, $search, Column::far($columns));
        foreach ($rows->lazyById(self::PIECE, 't.id', 'id')->chunk(self::PIECE) as $piece) {
            /** @var list<list<string|int|bool|null>> $cells */
            $cells = array_values($piece->map(static fn (object $row): array => self::values($columns, (array) $row))->all());
            $named = array_filter(array_map(static fn (Column $column): ?Field => $column->path?->field, $columns));
            $names->remember(array_map(
                static fn (int $place, Field $field): array => [$field, array_column($cells, $place)], array_keys($named), $named,
            ));
            foreach ($cells as $row) {
                yield CsvLine::of(array_map(
                    static fn (Column $column, string|int|bool|null $value): string => self::cell($type, $column, $value, $display),
                    $columns, $row,
                ));
            }
        }
    }

    /** @return list<Column> */
    private static function all(RecordType $type): array
    {
        $fields = array_map(
            static fn (Field $field): Column => new Column($field->name, new Path([], $field), $field->label),
            array_values($type->fields),
        );

        return [new Column(Column::NUMBER, null, 'Number'), ...$fields];
    }

    /**
     * @param  list<Column>  $columns
     * @param  array<array-key, mixed>  $row
     * @return list<string|int|bool|null>
     */
    private static function values(array $columns, array $row): array
    {
        return array_map(static fn (Column $column): string|int|bool|null => match (true) {
            $column->path !== null => Columns::value($column->path->field, $row[$column->path->name()] ?? null),
            $column->of === Column::SINCE => Columns::iso($row[TypeTable::SINCE] ?? null),
            default => (int) $row['id'],
        }, $columns);
    }

    private static function cell(RecordType $type, Column $column, string|int|bool|null $value, Display $display): string
    {
        $field = $column->path?->field;

        return match (true) {
            $value === null => '',
            $field === null => is_int($value) ? $type->numberOf($value) : (string) $value,
            // As other programs read them: a plain number, a moment of ISO 8601.
            $field->type->isDecimal(), $field->type->isMoment() => (string) $value,
            default => $display->of($field, $value),
        };
    }

    /** @param  list<Path>  $far */
    private function rows(RecordType $type, ?Condition $condition, string $search, array $far = []): Builder
    {
        $rows = $this->list->found($type, $condition, $search, $far);
        $reached = $this->inSight->where($type, 't', Act::Export);

        return $reached === null ? $rows : $rows->whereRaw($reached);
    }
}

<?php

declare(strict_types=1);

namespace App\Store;

use App\Models\Columns;
use App\Store\Access\InSight;
use Illuminate\Database\Query\Builder;
use VividLedger\Condition\Condition;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Rights\Act;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;

/** Records as a file (RFC 4180, UTF-8), of those that whoever asks may take out, read and written piece by piece. */
final readonly class RecordFile
{
    private const PIECE = 500;

    public function __construct(private RecordList $list, private Company $company, private InSight $inSight, private SchemaStore $schemas)
    {
    }

    /** How many records the file will have. */
    public function count(RecordType $type, ?Condition $condition, string $search): int
    {
        return $this->rows($type, $condition, $search)->count();
    }

    /** @return iterable<string> lines, the first with the labels of the fields */
    public function lines(RecordType $type, ?Condition $condition, string $search): iterable
    {
        $names = new PeopleStore($this->schemas, $this->inSight);
        $display = new Display($names, $this->company->zone());
        yield CsvLine::of(['Number', ...array_values(array_map(static fn ($field): string => $field->label, $type->fields))]);
        foreach ($this->rows($type, $condition, $search)->lazyById(self::PIECE, 't.id', 'id')->chunk(self::PIECE) as $rows) {
            $records = array_values($rows->map(static fn (object $row): Record => Columns::record($type, $row))->all());
            foreach ($type->fields as $name => $field) {
                $ids = array_values(array_filter(array_map(static fn (Record $record): mixed => $record->value($name), $records),
                    is_int(...)));
                match ($field->type) {
                    FieldType::Person => $names->rememberPeople($ids),
                    FieldType::Reference => $names->rememberTitles((string) $field->target, $ids),
                    default => null,
                };
            }
            foreach ($records as $record) {
                $cells = [$type->numberOf($record->id)];
                foreach ($type->fields as $name => $field) {
                    $value = $record->value($name);
                    $cells[] = match (true) {
                        $value === null => '',
                        // As other programs read them: a plain number, a moment of ISO 8601.
                        $field->type->isDecimal(), $field->type->isMoment() => (string) $value,
                        default => $display->of($field, $value),
                    };
                }
                yield CsvLine::of($cells);
            }
        }
    }

    private function rows(RecordType $type, ?Condition $condition, string $search): Builder
    {
        $rows = $this->list->found($type, $condition, $search);
        $reached = $this->inSight->where($type, 't', Act::Export);

        return $reached === null ? $rows : $rows->whereRaw($reached);
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Records;

use App\Http\Timing\NextLines;
use App\Store\Access\AccessScope;
use App\Store\People\PeopleStore;
use App\Store\Setup\Company;
use VividLedger\Listing\Column;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Rights\Act;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Schema\RecordType;

/** Records as the API gives them, with the names of all they refer to. */
final readonly class RecordResources
{
    public function __construct(
        private PeopleStore $names,
        private Company $company,
        private Stages $stages,
        private AccessScope $inSight,
        private NextLines $next,
    ) {
    }

    /**
     * Records as a list shows them, with what stands in its other columns.
     *
     * @param  list<Record>  $records  all of the type
     * @param  list<Column>  $columns
     * @param  array<int, array<string, string|int|bool|null>>  $cells  what was read over references, by record and name of the path
     * @return list<RecordResource>
     */
    public function inColumns(RecordType $type, array $records, array $columns, array $cells): array
    {
        $ids = array_map(static fn (Record $record): int => $record->id, $records);
        $isAsked = array_filter($columns, static fn (Column $column): bool => $column->of === Column::NEXT) !== [];
        $next = $isAsked ? $this->next->of($type->name, $ids) : [];
        $display = Display::spoken($this->names, $this->company->zone());
        $far = Column::far($columns);
        $this->names->remember(array_map(static fn (Path $path): array => [$path->field, array_column($cells, $path->name())], $far));

        return array_map(function (RecordResource $resource) use ($far, $cells, $next, $display): RecordResource {
            $values = isset($next[$resource->id]) ? [Column::NEXT => $next[$resource->id]['at']] : [];
            $shown = isset($next[$resource->id]) ? [Column::NEXT => $next[$resource->id]['says']] : [];
            foreach ($far as $path) {
                $value = $values[$path->name()] = $cells[$resource->id][$path->name()] ?? null;
                $shown[$path->name()] = $value === null ? '' : $display->of($path->field, $value);
            }

            return $resource->beside($values, $shown);
        }, $this->of($type, $records));
    }

    /**
     * @param  list<Record>  $records  all of the type
     * @return list<RecordResource>
     */
    public function of(RecordType $type, array $records): array
    {
        $type = $this->inSight->sight()->type($type);
        $this->rememberNames($type, $records);
        $display = Display::spoken($this->names, $this->company->zone());
        $since = $this->stages->since($type, $records);
        $resources = [];
        foreach ($records as $record) {
            $shown = [];
            $handles = [];
            foreach ($type->fields as $name => $field) {
                $value = $record->value($name);
                if ($field->type === FieldType::Person && is_int($value)) {
                    $handles[$name] = $this->names->person($value)->handle ?? '';
                }
                $shown[$name] = $value === null ? '' : $display->of($field, $value);
            }
            $resources[] = new RecordResource(
                type: $type->name, id: $record->id, number: $type->numberOf($record->id),
                title: $shown[$type->title] === '' ? $type->numberOf($record->id) : $shown[$type->title], version: $record->version,
                values: array_intersect_key($record->values, $type->fields), shown: $shown, handles: $handles,
                stageSince: $since[$record->id] ?? null, may: $this->acts($type, $record),
            );
        }

        return $resources;
    }

    /** @return list<string> */
    private function acts(RecordType $type, Record $record): array
    {
        $sight = $this->inSight->sight();

        return array_values(array_map(static fn (Act $act): string => $act->value, array_filter(
            Act::cases(),
            static fn (Act $act): bool => $sight->covers($act, $type, $record),
        )));
    }

    /** @param  list<Record>  $records one query for each kind of name instead of one for each name */
    private function rememberNames(RecordType $type, array $records): void
    {
        $this->names->remember(array_map(static fn (Field $field): array => [
            $field, array_map(static fn (Record $record): mixed => $record->value($field->name), $records),
        ], array_values($type->fields)));
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Shape\RecordShape;
use App\Store\Access\InSight;
use App\Store\Company;
use App\Store\PeopleStore;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Rights\Act;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;

/** Records as the API gives them, with the names of all they refer to. */
final readonly class RecordShapes
{
    public function __construct(
        private PeopleStore $names,
        private Company $company,
        private Stages $stages,
        private InSight $inSight,
    ) {
    }

    /**
     * @param  list<Record>  $records  all of the type
     * @return list<RecordShape>
     */
    public function of(RecordType $type, array $records): array
    {
        $type = $this->inSight->sight()->type($type);
        $this->rememberNames($type, $records);
        $display = new Display($this->names, $this->company->zone());
        $since = $this->stages->since($type, $records);
        $shapes = [];
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
            $shapes[] = new RecordShape(
                $type->name,
                $record->id,
                $type->numberOf($record->id),
                $shown[$type->title] === '' ? $type->numberOf($record->id) : $shown[$type->title],
                $record->version,
                array_intersect_key($record->values, $type->fields),
                $shown,
                $handles,
                $since[$record->id] ?? null,
                $this->acts($type, $record),
            );
        }

        return $shapes;
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
        $people = [];
        foreach ($type->fields as $name => $field) {
            $ids = [];
            foreach ($records as $record) {
                $value = $record->value($name);
                if (is_int($value)) {
                    $ids[] = $value;
                }
            }
            if ($field->type === FieldType::Person) {
                array_push($people, ...$ids);
            } elseif ($field->type === FieldType::Reference) {
                $this->names->rememberTitles((string) $field->target, $ids);
            }
        }
        $this->names->rememberPeople($people);
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Records;

use App\Models\Columns;
use App\Models\Records\FieldChange;
use App\Models\Records\StoredRecord;
use App\Store\HouseClock;
use App\Store\Types\TypeTable;
use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;

/** How long records have been where they are: the spells of their stage, from its history. */
final readonly class Stages
{
    public function __construct(
        private HouseClock $clock,
    ) {
    }

    /** @return list<StageResource> in the order of time; a value that came twice stands there twice */
    public function of(RecordType $type, int $id): array
    {
        $field = $type->stage();
        $created = $field === null ? null : StoredRecord::rowsOf($type)->where('id', $id)->value('created_at');
        if ($field === null || $created === null) {
            return [];
        }
        $labels = [];
        foreach ($field->choices as $choice) {
            $labels[$choice->value] = $choice->label;
        }
        $spells = [];
        $changes = FieldChange::query()->about($type->name, $id)->where('field', $field->name)->with('entry')->orderBy('entry_id')
            ->orderBy('id');
        foreach ($changes->get() as $change) {
            $spells[] = [$change->after, $change->entry->at->getTimestamp()];
        }
        $resources = [];
        foreach ($spells as $index => [$value, $from]) {
            $to = $spells[$index + 1][1] ?? $this->clock->now()->getTimestamp();
            if (is_string($value)) {
                $resources[] = new StageResource($value, $labels[$value] ?? $value, max(0, $to - $from), ! isset($spells[$index + 1]));
            }
        }

        return $resources;
    }

    /**
     * Since when records have been at the stage they are at.
     *
     * @param  list<Record>  $records  all of the type
     * @return array<int, string> by record
     */
    public function since(RecordType $type, array $records): array
    {
        if ($type->stage() === null || $records === []) {
            return [];
        }
        $ids = array_map(static fn (Record $record): int => $record->id, $records);
        $since = StoredRecord::rowsOf($type)->whereIn('id', $ids)->whereNotNull(TypeTable::SINCE)->pluck(TypeTable::SINCE, 'id');

        return array_map(static fn (string $at): string => (string) Columns::iso($at), $since->all());
    }
}

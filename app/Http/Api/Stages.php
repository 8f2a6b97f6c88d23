<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Shape\StageShape;
use App\Store\Columns;
use App\Store\TypeTable;
use App\Work\HouseClock;
use Illuminate\Database\Connection;
use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;

/** How long records have been where they are: the spells of their stage, from its history. */
final readonly class Stages
{
    public function __construct(
        private Connection $db,
        private HouseClock $clock,
    ) {
    }

    /** @return list<StageShape> in the order of time; a value that came twice stands there twice */
    public function of(RecordType $type, int $id): array
    {
        $field = $type->stage();
        $created = $field === null ? null : $this->db->scalar('SELECT created_at FROM `'.TypeTable::name($type->name).'` WHERE id = ?', [$id]);
        if ($field === null || $created === null) {
            return [];
        }
        $labels = [];
        foreach ($field->choices as $choice) {
            $labels[$choice->value] = $choice->label;
        }
        $spells = [];
        foreach ($this->db->select('SELECT h.after, e.at FROM field_history h JOIN entries e ON e.id = h.entry_id WHERE h.record_type = ? AND h.record_id = ? AND h.field = ? ORDER BY h.entry_id, h.id', [$type->name, $id, $field->name]) as $row) {
            $spells[] = [json_decode($row->after, true, 4, JSON_THROW_ON_ERROR), strtotime("{$row->at}Z")];
        }
        $shapes = [];
        foreach ($spells as $index => [$value, $from]) {
            $to = $spells[$index + 1][1] ?? $this->clock->now()->getTimestamp();
            if (is_string($value)) {
                $shapes[] = new StageShape($value, $labels[$value] ?? $value, max(0, (int) $to - (int) $from), ! isset($spells[$index + 1]));
            }
        }

        return $shapes;
    }

    /**
     * Since when records have been at the stage they are at.
     *
     * @param  list<Record>  $records  all of the type
     * @return array<int, string> by record
     */
    public function since(RecordType $type, array $records): array
    {
        $field = $type->stage();
        if ($field === null || $records === []) {
            return [];
        }
        $since = [];
        $ids = implode(', ', array_map(static fn (Record $record): int => $record->id, $records));
        foreach ($this->db->select("SELECT h.record_id, MAX(e.at) AS at FROM field_history h JOIN entries e ON e.id = h.entry_id WHERE h.record_type = ? AND h.record_id IN ({$ids}) AND h.field = ? GROUP BY h.record_id", [$type->name, $field->name]) as $row) {
            $since[(int) $row->record_id] = (string) Columns::iso($row->at);
        }

        return $since;
    }
}

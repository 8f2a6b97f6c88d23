<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Change;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Record\Record;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;

/** Records as they once were, from what they are now and every field's history since. */
final readonly class History
{
    private const BIRTHS = "('created', 'restored')";

    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
    ) {
    }

    /** The record as it stood after an entry; null when it did not exist then, or never. */
    public function recordAfter(RecordType $type, int $id, int $entry): ?Record
    {
        $born = $this->db->scalar('SELECT MAX(id) FROM entries WHERE record_type = ? AND record_id = ? AND id <= ? AND kind IN '.self::BIRTHS, [$type->name, $id, $entry]);
        $row = $this->db->selectOne('SELECT * FROM `'.TypeTable::name($type->name).'` WHERE id = ?', [$id]);
        if ($born === null && ($row === null || $this->db->selectOne('SELECT 1 FROM entries WHERE record_type = ? AND record_id = ? AND kind IN '.self::BIRTHS.' LIMIT 1', [$type->name, $id]) !== null)) {
            return null;
        }
        $died = $this->db->scalar("SELECT MAX(id) FROM entries WHERE record_type = ? AND record_id = ? AND id <= ? AND kind = 'deleted'", [$type->name, $id, $entry]);
        if ($died !== null && (int) $died > (int) $born) {
            return null;
        }
        $now = $row === null ? $this->nothing($type, $id) : Columns::record($type, $row);
        $values = [];
        // Backwards through what came later, so the oldest "before" is what remains.
        foreach ($this->db->select('SELECT field, `before` FROM field_history WHERE record_type = ? AND record_id = ? AND entry_id > ? ORDER BY id DESC', [$type->name, $id, $entry]) as $past) {
            if (isset($type->fields[$past->field])) {
                $values[$past->field] = json_decode((string) $past->before, true, 4, JSON_THROW_ON_ERROR);
            }
        }
        $version = $this->db->scalar('SELECT MAX(version) FROM entries WHERE record_type = ? AND record_id = ? AND id <= ?', [$type->name, $id, $entry]);

        return $this->whole($type, (new Record($type->name, $id, (int) ($version ?? $now->version), $now->values))->with($values), $entry);
    }

    /**
     * The save or the event that an entry recorded.
     *
     * @return ?Change null when the entry is neither
     */
    public function change(int $entry): ?Change
    {
        $row = $this->db->selectOne('SELECT * FROM entries WHERE id = ?', [$entry]);
        $type = $row === null || $row->record_type === null ? null : $this->schemas->schema()->type($row->record_type);
        if ($row === null || $type === null) {
            return null;
        }
        $at = new \DateTimeImmutable($row->at.'Z');
        $actor = $row->actor_id === null ? null : (int) $row->actor_id;
        $via = CauseKind::from($row->via);
        $event = EventKind::tryFrom($row->kind);
        if ($row->kind === 'deleted') {
            $before = $this->recordAfter($type, (int) $row->record_id, $entry - 1);

            return $before === null ? null : new Change($before, null, $actor, $at, $via);
        }
        $after = in_array($row->kind, ['created', 'changed'], true) || $event !== null ? $this->recordAfter($type, (int) $row->record_id, $entry) : null;
        if ($after === null) {
            return null;
        }
        if ($event !== null) {
            $data = json_decode($row->data, true, 512, JSON_THROW_ON_ERROR);

            return Change::event($after, new Event($event, "entry:{$entry}", (string) ($data['text'] ?? $data['name'] ?? $data['title'] ?? ''), $row->rule_id === null || $event !== EventKind::ByHand ? null : (int) $row->rule_id), $actor, $at, $via);
        }
        $before = null;
        if ($row->kind === 'changed') {
            $past = [];
            foreach ($this->db->select('SELECT field, `before` FROM field_history WHERE entry_id = ?', [$entry]) as $field) {
                $past[$field->field] = json_decode((string) $field->before, true, 4, JSON_THROW_ON_ERROR);
            }
            $before = (new Record($after->type, $after->id, $after->version - 1, $after->values))->with($past);
        }

        return new Change($before, $after, $actor, $at, $via);
    }

    /** A record of which only the history is left. */
    private function nothing(RecordType $type, int $id): Record
    {
        $values = [];
        foreach ($type->fields as $name => $field) {
            $values[$name] = $field->type === FieldType::Tick ? false : null;
        }

        return new Record($type->name, $id, 0, $values);
    }

    /** The stamps of a record that is gone come from its entries. */
    private function whole(RecordType $type, Record $record, int $entry): Record
    {
        if ($record->value('created_at') !== null) {
            return $record;
        }
        $stamps = [];
        foreach (['created' => ['MIN', self::BIRTHS], 'updated' => ['MAX', "('created', 'restored', 'changed', 'fired')"]] as $stamp => [$edge, $kinds]) {
            $row = $this->db->selectOne("SELECT at, actor_id FROM entries WHERE id = (SELECT {$edge}(id) FROM entries WHERE record_type = ? AND record_id = ? AND id <= ? AND kind IN {$kinds})", [$type->name, $record->id, $entry]);
            if ($row !== null) {
                $stamps["{$stamp}_at"] = Columns::iso($row->at);
                $stamps["{$stamp}_by"] = $row->actor_id === null ? null : (int) $row->actor_id;
            }
        }

        return $record->with($stamps);
    }
}

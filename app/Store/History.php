<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Change;
use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;

/** Records as they once were, from what they are now and every field's history since. */
final readonly class History
{
    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
    ) {
    }

    /** The record as it stood after an entry; null when it did not exist then, or never. */
    public function recordAfter(RecordType $type, int $id, int $entry): ?Record
    {
        $row = $this->db->selectOne('SELECT * FROM `'.TypeTable::name($type->name).'` WHERE id = ?', [$id]);
        if ($row === null) {
            return null;
        }
        $born = $this->db->scalar("SELECT MIN(id) FROM entries WHERE record_type = ? AND record_id = ? AND kind = 'created'", [$type->name, $id]);
        if ($born !== null && (int) $born > $entry) {
            return null;
        }
        $now = Columns::record($type, $row);
        $values = [];
        // Backwards through what came later, so the oldest "before" is what remains.
        foreach ($this->db->select('SELECT field, `before` FROM field_history WHERE record_type = ? AND record_id = ? AND entry_id > ? ORDER BY id DESC', [$type->name, $id, $entry]) as $past) {
            $values[$past->field] = json_decode((string) $past->before, true, 4, JSON_THROW_ON_ERROR);
        }
        $version = $this->db->scalar('SELECT MAX(version) FROM entries WHERE record_type = ? AND record_id = ? AND id <= ?', [$type->name, $id, $entry]);

        return (new Record($type->name, $id, (int) ($version ?? $now->version), $now->values))->with($values);
    }

    /**
     * The save that an entry recorded.
     *
     * @return ?Change null when the entry is not the save of a record
     */
    public function change(int $entry): ?Change
    {
        $row = $this->db->selectOne("SELECT * FROM entries WHERE id = ? AND kind IN ('created', 'changed')", [$entry]);
        $type = $row === null ? null : $this->schemas->schema()->type($row->record_type);
        if ($row === null || $type === null) {
            return null;
        }
        $after = $this->recordAfter($type, (int) $row->record_id, $entry);
        if ($after === null) {
            return null;
        }
        $before = null;
        if ($row->kind === 'changed') {
            $past = [];
            foreach ($this->db->select('SELECT field, `before` FROM field_history WHERE entry_id = ?', [$entry]) as $field) {
                $past[$field->field] = json_decode((string) $field->before, true, 4, JSON_THROW_ON_ERROR);
            }
            $before = (new Record($after->type, $after->id, $after->version - 1, $after->values))->with($past);
        }

        return new Change($before, $after, $row->actor_id === null ? null : (int) $row->actor_id, new \DateTimeImmutable($row->at.'Z'), CauseKind::from($row->via));
    }
}

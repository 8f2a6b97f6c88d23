<?php

declare(strict_types=1);

namespace App\Store\Records;

use App\Models\Ledger\Entry;
use App\Models\Records\FieldChange;
use App\Store\Ledger\EntryEvent;
use App\Store\Types\SchemaStore;
use VividLedger\Record\Change;
use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;

/** Records as they once were, from what they are now and every field's history since. */
final readonly class RecordHistory
{
    public function __construct(
        private SchemaStore $schemas,
    ) {
    }

    /** The record as it stood after an entry; null when it did not exist then, or never. */
    public function recordAfter(RecordType $type, int $id, int $entry): ?Record
    {
        return (new Timelines($this->schemas))->record($type->name, $id, $entry);
    }

    /**
     * The save or the event that an entry recorded.
     *
     * @return ?Change null when the entry is neither
     */
    public function change(int $entry): ?Change
    {
        $row = Entry::query()->find($entry);
        $type = $row?->record_type === null ? null : $this->schemas->schema()->type($row->record_type);
        if ($row === null || $type === null) {
            return null;
        }
        $event = EntryEvent::of($entry, $row->kind, $row->data, $row->rule_id);
        if ($row->kind === 'deleted') {
            $before = $this->recordAfter($type, (int) $row->record_id, $entry - 1);

            return $before === null ? null : new Change($before, null, $row->actor_id, $row->at, $row->via);
        }
        $isTold = in_array($row->kind, ['created', 'changed'], true) || $event !== null;
        $after = $isTold ? $this->recordAfter($type, (int) $row->record_id, $entry) : null;
        if ($after === null) {
            return null;
        }
        if ($event !== null) {
            return Change::event($after, $event, $row->actor_id, $row->at, $row->via);
        }
        $before = null;
        if ($row->kind === 'changed') {
            $past = $row->fields->mapWithKeys(static fn (FieldChange $field): array => [$field->field => $field->before])->all();
            $before = (new Record($after->type, $after->id, $after->version - 1, $after->values))->with($past);
        }

        return new Change($before, $after, $row->actor_id, $row->at, $row->via);
    }

    /** A deleted record as it last was; null when it never was deleted. */
    public function beforeDeletion(RecordType $type, int $id): ?Record
    {
        $deleted = Entry::query()->about($type->name, $id)->where('kind', 'deleted')->max('id');

        return $deleted === null ? null : $this->recordAfter($type, $id, (int) $deleted - 1);
    }
}

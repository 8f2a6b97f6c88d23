<?php

declare(strict_types=1);

namespace App\Store;

use App\Models\Columns;
use App\Models\Entry;
use App\Models\FieldChange;
use App\Models\StoredRecord;
use Closure;
use Illuminate\Database\Query\Builder;
use VividLedger\Record\Change;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Record\Record;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;

/** Records as they once were, from what they are now and every field's history since. */
final readonly class History
{
    private const BIRTHS = ['created', 'restored'];

    private const WRITES = ['created', 'restored', 'changed', 'fired'];

    public function __construct(
        private SchemaStore $schemas,
    ) {
    }

    /** The record as it stood after an entry; null when it did not exist then, or never. */
    public function recordAfter(RecordType $type, int $id, int $entry): ?Record
    {
        $entries = static fn (): Builder => Entry::rows()->where('record_type', $type->name)->where('record_id', $id);
        $upTo = static fn (): Builder => $entries()->where('id', '<=', $entry);
        $born = $upTo()->whereIn('kind', self::BIRTHS)->max('id');
        $row = StoredRecord::rowsOf($type)->where('id', $id)->first();
        if ($born === null && ($row === null || $entries()->whereIn('kind', self::BIRTHS)->exists())) {
            return null;
        }
        $died = $upTo()->where('kind', 'deleted')->max('id');
        if ($died !== null && (int) $died > (int) $born) {
            return null;
        }
        $now = $row === null ? $this->nothing($type, $id) : Columns::record($type, $row);
        $values = [];
        // Backwards through what came later, so the oldest "before" is what remains.
        $later = FieldChange::rows()->where('record_type', $type->name)->where('record_id', $id)->where('entry_id', '>', $entry)
            ->orderByDesc('id');
        foreach ($later->get(['field', 'before']) as $past) {
            if (isset($type->fields[$past->field])) {
                $values[$past->field] = json_decode((string) $past->before, true, 4, JSON_THROW_ON_ERROR);
            }
        }
        $version = $upTo()->max('version');
        $then = new Record($type->name, $id, (int) ($version ?? $now->version), $now->values);

        return $this->whole($type, $then->with($values), $upTo);
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
        $event = EventKind::tryFrom($row->kind);
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
            $happened = new Event(
                $event, "entry:{$entry}", (string) ($row->data['text'] ?? $row->data['name'] ?? $row->data['title'] ?? ''),
                $event !== EventKind::ByHand ? null : $row->rule_id,
            );

            return Change::event($after, $happened, $row->actor_id, $row->at, $row->via);
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

    /** A record of which only the history is left. */
    private function nothing(RecordType $type, int $id): Record
    {
        $values = [];
        foreach ($type->fields as $name => $field) {
            $values[$name] = $field->type === FieldType::Tick ? false : null;
        }

        return new Record($type->name, $id, 0, $values);
    }

    /**
     * The stamps of a record that is gone come from its entries.
     *
     * @param  Closure(): Builder  $upTo
     */
    private function whole(RecordType $type, Record $record, Closure $upTo): Record
    {
        if ($record->value('created_at') !== null) {
            return $record;
        }
        $stamps = [];
        foreach (['created' => $upTo()->whereIn('kind', self::BIRTHS)->orderBy('id'),
            'updated' => $upTo()->whereIn('kind', self::WRITES)->orderByDesc('id')] as $stamp => $entries) {
            $row = $entries->first(['at', 'actor_id']);
            if ($row !== null) {
                $stamps["{$stamp}_at"] = Columns::iso($row->at);
                $stamps["{$stamp}_by"] = $row->actor_id === null ? null : (int) $row->actor_id;
            }
        }

        return $record->with($stamps);
    }
}

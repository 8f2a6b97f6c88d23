<?php

declare(strict_types=1);

namespace App\Evidence\Rehearsal;

use App\Evidence\Rules\Chains;
use App\Models\Columns;
use App\Models\Ledger\Entry;
use App\Models\Outbound\StoredMessage;
use App\Models\Records\FieldChange;
use App\Store\Ledger\EntryEvent;
use App\Store\Records\PointInTimeFacts;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Query\Expression;
use Illuminate\Database\Query\JoinClause;
use Illuminate\Support\Collection;
use VividLedger\Facts\Facts;
use VividLedger\Record\CauseKind;
use VividLedger\Rehearse\Past;
use VividLedger\Rehearse\PastChange;

/** The recorded history, read a few hundred records at a time. */
final class RecordedPast implements Past
{
    private const CHUNK = 250;

    private const KINDS = [
        'created', 'changed', 'restored', 'deleted', 'fired', 'line', 'reversed', 'by_hand', ...EntryEvent::TOLD,
    ];

    public function __construct(
        private readonly SchemaStore $schemas,
        private readonly PointInTimeFacts $asOf,
        private readonly Chains $chains,
    ) {
    }

    public function ofType(string $type): iterable
    {
        $after = 0;
        do {
            $ids = Entry::query()->where('record_type', $type)->where('record_id', '>', $after)->distinct()->orderBy('record_id')
                ->limit(self::CHUNK)->pluck('record_id')->all();
            if ($ids === []) {
                return;
            }
            yield from $this->chunk($type, $after + 1, $after = $ids[count($ids) - 1]);
        } while (count($ids) === self::CHUNK);
    }

    public function after(int $entry, \DateTimeImmutable $at): Facts
    {
        return $this->asOf->after($entry, $at);
    }

    /** @return iterable<int, list<PastChange>> */
    private function chunk(string $type, int $from, int $to): iterable
    {
        $rows = $this->rows($type, $from, $to);
        $wrote = array_fill_keys(StoredMessage::query()->where('record_type', $type)->whereBetween('record_id', [$from, $to])
            ->tap(static fn (Builder $messages) => StoredMessage::thatMayBeAnswered($messages, 'messages'))
            ->distinct()->pluck('entry_id')->all(), true);
        $this->chains->learn($rows);
        $changes = [];
        $record = 0;
        $entry = null;
        $set = [];
        $fields = $this->schemas->schema()->types[$type]->fields;
        foreach ($rows as $row) {
            if ($entry !== null && $entry->id !== $row->id) {
                $changes[] = self::change($entry, $set, isset($wrote[$entry->id]), $this->chains->root((int) $entry->id));
                $set = [];
            }
            if ($entry !== null && $record !== (int) $row->record_id) {
                yield $record => $changes;
                $changes = [];
            }
            $record = (int) $row->record_id;
            $entry = $row;
            if ($row->field !== null && isset($fields[$row->field])) {
                $set[$row->field] = self::value((string) $row->after);
            }
        }
        if ($entry !== null) {
            $changes[] = self::change($entry, $set, isset($wrote[$entry->id]), $this->chains->root((int) $entry->id));
            yield $record => $changes;
        }
    }

    /** @return Collection<int, \stdClass> entries of records in a span, each as often as it wrote fields */
    private function rows(string $type, int $from, int $to): Collection
    {
        return Entry::rows()->from(Entry::tableName(), 'e')
            ->leftJoin(FieldChange::tableName().' as h', static fn (JoinClause $field): JoinClause => $field->on('h.entry_id', '=', 'e.id')
                ->on('h.record_type', '=', 'e.record_type')->on('h.record_id', '=', 'e.record_id'))
            ->where('e.record_type', $type)->whereBetween('e.record_id', [$from, $to])->whereIn('e.kind', self::KINDS)
            ->orderBy('e.record_id')->orderBy('e.id')
            ->get([
                'e.id', 'e.record_id', 'e.kind', 'e.at', 'e.actor_id', 'e.via', 'e.rule_id', 'e.cause_id', 'h.field', 'h.after',
                self::text(),
            ]);
    }

    /**
     * What entries keep is long, and only events have a text in it that conditions ask for.
     *
     * @return Expression<covariant string>
     */
    private static function text(): Expression
    {
        return new Expression("IF(e.kind IN ('".implode("', '", EntryEvent::TOLD)."'), e.data, NULL) AS data");
    }

    /** Plain texts are by far the most, and need no parser. */
    private static function value(string $json): string|int|bool|null
    {
        return $json !== '' && $json[0] === '"' && ! str_contains($json, '\\') ? substr($json, 1, -1) : json_decode(
            $json,
            true,
            4,
            JSON_THROW_ON_ERROR,
        );
    }

    /** @param  array<string, string|int|bool|null>  $set */
    private static function change(\stdClass $row, array $set, bool $wrote, int $chain): PastChange
    {
        $data = $row->data === null ? [] : (array) json_decode($row->data, true, 64, JSON_THROW_ON_ERROR);
        $event = EntryEvent::of((int) $row->id, $row->kind, $data, null);

        return new PastChange(
            entry: (int) $row->id, kind: $row->kind, at: (string) Columns::iso($row->at),
            actor: $row->actor_id === null ? null : (int) $row->actor_id, via: CauseKind::from($row->via), set: $set,
            event: $event?->kind, text: $event->text ?? '', from: $event->from ?? '',
            rule: $row->rule_id === null || $event !== null ? null : (int) $row->rule_id, wrote: $wrote, cause: (int) $row->cause_id,
            chain: $chain,
        );
    }
}

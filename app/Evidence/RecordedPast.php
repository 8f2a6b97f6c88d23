<?php

declare(strict_types=1);

namespace App\Evidence;

use App\Store\Company;
use App\Store\SchemaStore;
use Illuminate\Database\Connection;
use VividLedger\Engine\Facts;
use VividLedger\Record\CauseKind;
use VividLedger\Record\EventKind;
use VividLedger\Rehearse\Past;
use VividLedger\Rehearse\PastChange;

/** The recorded history, read a few hundred records at a time. */
final class RecordedPast implements Past
{
    private const CHUNK = 250;

    private const KINDS = ['created', 'changed', 'restored', 'deleted', 'fired', 'line', 'reversed', 'comment', 'file', 'reply', 'task_done', 'by_hand'];

    private readonly TimelineFacts $facts;

    public function __construct(
        private readonly Connection $db,
        private readonly SchemaStore $schemas,
        private readonly Timelines $timelines,
        private readonly Company $company,
        private readonly Chains $chains,
    ) {
        $this->facts = new TimelineFacts($db, $schemas, $timelines, new \DateTimeImmutable('now'), $company->zone());
    }

    public function ofType(string $type): iterable
    {
        $after = 0;
        do {
            $ids = array_map(static fn (object $row): int => (int) $row->record_id, $this->db->select('SELECT DISTINCT record_id FROM entries WHERE record_type = ? AND record_id > ? ORDER BY record_id LIMIT '.self::CHUNK, [$type, $after]));
            if ($ids === []) {
                return;
            }
            yield from $this->chunk($type, $after + 1, $after = $ids[count($ids) - 1]);
        } while (count($ids) === self::CHUNK);
    }

    public function after(int $entry, \DateTimeImmutable $at): Facts
    {
        return $this->facts->after($entry, $at);
    }

    /** @return iterable<int, list<PastChange>> */
    private function chunk(string $type, int $from, int $to): iterable
    {
        $kinds = "'".implode("', '", self::KINDS)."'";
        $rows = $this->db->select(
            "SELECT e.id, e.record_id, e.kind, e.at, e.actor_id, e.via, e.rule_id, e.cause_id, h.field, h.`after`, IF(e.kind IN ('comment', 'file', 'reply', 'task_done'), e.data, NULL) AS data
            FROM entries e LEFT JOIN field_history h ON h.entry_id = e.id AND h.record_type = e.record_type AND h.record_id = e.record_id
            WHERE e.record_type = ? AND e.record_id BETWEEN ? AND ? AND e.kind IN ({$kinds}) ORDER BY e.record_id, e.id",
            [$type, $from, $to],
        );
        $wrote = array_fill_keys(array_map(static fn (object $row): int => (int) $row->entry_id, $this->db->select("SELECT DISTINCT entry_id FROM messages WHERE record_type = ? AND record_id BETWEEN ? AND ? AND channel <> 'app'", [$type, $from, $to])), true);
        $this->chains->learn($rows);
        $changes = [];
        $record = null;
        $entry = null;
        $set = [];
        $fields = $this->schemas->schema()->types[$type]->fields;
        foreach ($rows as $row) {
            if ($entry !== null && $entry->id !== $row->id) {
                $changes[] = self::change($entry, $set, isset($wrote[$entry->id]), $this->chains->root((int) $entry->id));
                $set = [];
            }
            if ($record !== null && $record !== (int) $row->record_id) {
                yield $record => $changes;
                $changes = [];
            }
            $record = (int) $row->record_id;
            $entry = $row;
            if ($row->field !== null && isset($fields[$row->field])) {
                $set[$row->field] = self::value((string) $row->after);
            }
        }
        if ($entry !== null && $record !== null) {
            $changes[] = self::change($entry, $set, isset($wrote[$entry->id]), $this->chains->root((int) $entry->id));
            yield $record => $changes;
        }
    }

    /** Plain texts are by far the most, and need no parser. */
    private static function value(string $json): string|int|bool|null
    {
        return $json !== '' && $json[0] === '"' && ! str_contains($json, '\\') ? substr($json, 1, -1) : json_decode($json, true, 4, JSON_THROW_ON_ERROR);
    }

    /** @param  array<string, string|int|bool|null>  $set */
    private static function change(object $row, array $set, bool $wrote, int $chain): PastChange
    {
        $event = EventKind::tryFrom($row->kind);
        $data = $row->data === null ? [] : json_decode($row->data, true, 64, JSON_THROW_ON_ERROR);

        return new PastChange((int) $row->id, $row->kind, str_replace(' ', 'T', $row->at).'Z', $row->actor_id === null ? null : (int) $row->actor_id, CauseKind::from($row->via), $set, $event, (string) ($data['text'] ?? $data['name'] ?? $data['title'] ?? ''), $row->rule_id === null || $event !== null ? null : (int) $row->rule_id, $wrote, (int) $row->cause_id, $chain);
    }
}

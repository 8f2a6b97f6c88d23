<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Shape\EntryShape;
use App\Store\Columns;
use App\Store\PeopleStore;
use App\Store\SchemaStore;
use Illuminate\Database\Connection;

/** Reads entries of the ledger, with the names of all they mention. */
final readonly class Entries
{
    public const A_PAGE = 50;

    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private PeopleStore $names,
    ) {
    }

    /**
     * @param  string  $where  SQL over the entries, aliased "e"
     * @param  list<string|int>  $bindings
     * @return list<EntryShape> the newest first
     */
    public function read(string $where, array $bindings, int $limit = self::A_PAGE, bool $oldestFirst = false): array
    {
        $direction = $oldestFirst ? 'ASC' : 'DESC';
        $rows = $this->db->select(
            "SELECT e.*, p.name AS who, p.id AS who_id, p.handle AS who_handle, r.name AS rule_name FROM entries e LEFT JOIN people p ON p.id = e.actor_id LEFT JOIN rules r ON r.id = e.rule_id
            WHERE {$where} ORDER BY e.id {$direction} LIMIT {$limit}",
            $bindings,
        );
        $ids = [];
        foreach ($rows as $row) {
            if ($row->record_type !== null) {
                $ids[$row->record_type][] = (int) $row->record_id;
            }
        }
        foreach ($ids as $type => $recordIds) {
            $this->names->rememberTitles($type, $recordIds);
        }

        return array_map($this->shape(...), $rows);
    }

    /**
     * The account of a record: its own entries, and those that sent a letter to it.
     *
     * @return list<EntryShape>
     */
    public function ofRecord(string $type, int $id, int $before): array
    {
        // Each of the two is read through its own index.
        $ids = $this->db->select(
            '(SELECT id FROM entries WHERE record_type = ? AND record_id = ? AND id < ? ORDER BY id DESC LIMIT '.self::A_PAGE.')
            UNION (SELECT m.entry_id FROM message_accounts a JOIN messages m ON m.id = a.message_id WHERE a.record_type = ? AND a.record_id = ? AND m.entry_id < ? ORDER BY m.entry_id DESC LIMIT '.self::A_PAGE.') ORDER BY id DESC LIMIT '.self::A_PAGE,
            [$type, $id, $before, $type, $id, $before],
        );

        return $ids === [] ? [] : $this->read(
            'e.id IN ('.implode(', ', array_map(static fn (object $row): int => (int) $row->id, $ids)).')',
            [],
        );
    }

    public function one(int $number): ?EntryShape
    {
        return $this->read('e.id = ?', [$number], 1)[0] ?? null;
    }

    private function shape(object $row): EntryShape
    {
        $data = json_decode($row->data, true, 512, JSON_THROW_ON_ERROR);
        $changes = $data['changes'] ?? [];
        unset($data['changes']);
        $type = $row->record_type === null ? null : $this->schemas->schema()->type($row->record_type);
        $id = $row->record_id === null ? null : (int) $row->record_id;

        return new EntryShape(
            (int) $row->id, $row->kind, (string) Columns::iso($row->at), $row->who, $this->int($row->who_id), $row->who_handle, $row->via, $row->record_type, $id,
            $type === null || $id === null ? null : $type->numberOf($id),
            $type === null || $id === null ? null : $this->names->title($type->name, $id),
            $this->int($row->rule_id), $row->rule_name, $this->int($row->page), $this->int($row->task_id), $this->int($row->cause_id), $changes, $data,
        );
    }

    private function int(mixed $column): ?int
    {
        return $column === null ? null : (int) $column;
    }
}

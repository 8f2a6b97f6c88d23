<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Shape\TaskShape;
use App\Store\Columns;
use App\Store\PeopleStore;
use App\Store\SchemaStore;
use Illuminate\Database\Connection;

/** Reads tasks, with the names of all they mention. */
final readonly class Tasks
{
    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private PeopleStore $names,
    ) {
    }

    /** @return list<TaskShape> open ones by due date, those without one last; done ones the latest first */
    public function listed(string $status, ?int $person, int $limit): array
    {
        $order = $status === 'open' ? 't.due_at IS NULL, t.due_at, t.id' : 't.done_at DESC, t.id DESC';

        return $this->read('t.status = ? AND (? IS NULL OR t.assignee_id = ?)', [$status, $person, $person], $order, $limit);
    }

    public function count(?string $status, ?int $person): int
    {
        return (int) $this->db->scalar(
            'SELECT COUNT(*) FROM tasks WHERE (? IS NULL OR status = ?) AND (? IS NULL OR assignee_id = ?)',
            [$status, $status, $person, $person],
        );
    }

    /**
     * Tasks in the order of their ids, for whoever wants all of them.
     *
     * @param  ?int  $before  only those with a lower id, the highest first
     * @param  ?int  $after  only those with a higher id, the lowest first
     * @return list<TaskShape>
     */
    public function inOrder(?string $status, ?int $person, ?int $before, ?int $after, int $limit): array
    {
        $where = '(? IS NULL OR t.status = ?) AND (? IS NULL OR t.assignee_id = ?) AND '.($after === null ? 't.id < ?' : 't.id > ?');

        return $this->read(
            $where,
            [$status, $status, $person, $person, $after ?? $before ?? PHP_INT_MAX],
            $after === null ? 't.id DESC' : 't.id',
            $limit,
        );
    }

    /** @return list<TaskShape> those about a record, open ones first */
    public function ofRecord(string $type, int $id, int $limit): array
    {
        return $this->read(
            't.record_type = ? AND t.record_id = ?',
            [$type, $id],
            "t.status = 'done', t.due_at IS NULL, t.due_at, t.id",
            $limit,
        );
    }

    public function one(int $id): ?TaskShape
    {
        return $this->read('t.id = ?', [$id], 't.id', 1)[0] ?? null;
    }

    /**
     * @param  list<string|int|null>  $bindings
     * @return list<TaskShape>
     */
    private function read(string $where, array $bindings, string $order, int $limit): array
    {
        $rows = $this->db->select(
            "SELECT t.*, a.name AS assignee, a.handle AS assignee_handle, d.name AS done_by_name, r.name AS rule_name FROM tasks t LEFT JOIN people a ON a.id = t.assignee_id
            LEFT JOIN people d ON d.id = t.done_by LEFT JOIN rules r ON r.id = t.rule_id WHERE {$where} ORDER BY {$order} LIMIT {$limit}",
            $bindings,
        );
        $ids = [];
        foreach ($rows as $row) {
            $ids[$row->record_type][] = (int) $row->record_id;
        }
        foreach ($ids as $type => $recordIds) {
            $this->names->rememberTitles($type, $recordIds);
        }

        return array_map(function (object $row): TaskShape {
            $number = $this->schemas->schema()->type($row->record_type)?->numberOf((int) $row->record_id) ?? '';

            return new TaskShape(
                (int) $row->id, $row->title, $row->notes, $row->priority, $row->status, $row->assignee_id === null ? null : (int) $row->assignee_id, $row->assignee_handle, $row->assignee,
                $row->record_type, (int) $row->record_id, $number, $this->names->title($row->record_type, (int) $row->record_id) ?? $number,
                $row->rule_id === null ? null : (int) $row->rule_id, $row->rule_name, (int) $row->entry_id,
                (string) Columns::iso($row->given_at), Columns::iso($row->due_at), Columns::iso($row->done_at), $row->done_by_name,
            );
        }, $rows);
    }
}

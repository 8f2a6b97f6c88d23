<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Shape\AheadShape;
use App\Store\Columns;
use App\Store\PeopleStore;
use App\Store\SchemaStore;
use Illuminate\Database\Connection;

/** Reads what is pencilled in. */
final readonly class Ahead
{
    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private PeopleStore $names,
    ) {
    }

    /** @return list<AheadShape> the furthest first, so that the next stands right above the now line */
    public function ofRecord(string $type, int $id): array
    {
        return $this->read(
            "((l.record_type = ? AND l.record_id = ?) OR (t.about_type = ? AND t.about_id = ?)) AND l.status IN ('pencilled', 'held')", [$type, $id, $type, $id], 'l.due_at IS NULL DESC, l.due_at DESC, l.id DESC', 200,
        );
    }

    /**
     * @param  list<string|int>  $bindings
     * @return list<AheadShape>
     */
    public function read(string $where, array $bindings, string $order, int $limit): array
    {
        $rows = $this->db->select(
            "SELECT l.*, t.title, t.rule_id AS task_rule, p.name AS person, r.name AS rule_name FROM scheduled_lines l
            LEFT JOIN tasks t ON t.id = l.task_id LEFT JOIN people p ON p.id = t.assignee_id LEFT JOIN rules r ON r.id = COALESCE(l.rule_id, t.rule_id)
            WHERE {$where} ORDER BY {$order} LIMIT {$limit}",
            $bindings,
        );
        $ids = [];
        foreach ($rows as $row) {
            $ids[$row->record_type][] = (int) $row->record_id;
        }
        foreach ($ids as $type => $recordIds) {
            $this->names->rememberTitles($type, $recordIds);
        }

        return array_map(function (object $row): AheadShape {
            $number = $this->schemas->schema()->type($row->record_type)?->numberOf((int) $row->record_id) ?? '';
            $rule = $row->rule_id ?? $row->task_rule;

            return new AheadShape(
                (int) $row->id, $row->kind, $row->status, Columns::iso($row->due_at), $row->title ?? $row->said, $row->person, $rule === null ? null : (int) $rule, $row->rule_name,
                $row->task_id === null ? null : (int) $row->task_id, match (true) {
                    $row->held_code === 'rule_paused' => 'the rule is paused',
                    $row->status === 'failed' => (string) $row->struck_because,
                    default => $row->note,
                }, $row->record_type, (int) $row->record_id, $number, $this->names->title($row->record_type, (int) $row->record_id) ?? $number,
            );
        }, $rows);
    }
}

<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;

/** Whether what a person changed has been changed by somebody else since they opened the record; and if so, who changed what to what. */
final readonly class StaleVersion
{
    public function __construct(private Connection $db)
    {
    }

    /**
     * What is left to save of a person's values. Fields that others have changed since, and the person has not, keep what they are.
     *
     * @param  array<string, string|int|bool|null>  $given  values that differ from the record
     * @return array<string, string|int|bool|null>
     *
     * @throws Refused when the same field was changed by both
     */
    public function settled(RecordType $type, Record $now, int $seen, array $given): array
    {
        if ($seen > $now->version || $seen < 1) {
            throw $this->refusal($type, $now, $seen);
        }
        $touched = [];
        foreach ($this->db->select('SELECT h.field, h.`before` FROM entries e JOIN field_history h ON h.entry_id = e.id AND h.record_type = e.record_type AND h.record_id = e.record_id WHERE e.record_type = ? AND e.record_id = ? AND e.version > ? ORDER BY h.id', [$type->name, $now->id, $seen]) as $row) {
            $touched[$row->field] ??= [json_decode((string) $row->before, true, 4, JSON_THROW_ON_ERROR)];
        }
        foreach ($given as $name => $value) {
            if (! isset($touched[$name])) {
                continue;
            }
            if ($touched[$name][0] !== $value) {
                throw $this->refusal($type, $now, $seen, array_values(array_intersect(array_keys($given), array_keys($touched))));
            }
            // It is what the person saw, so the person did not touch it.
            unset($given[$name]);
        }

        return $given;
    }

    /** @param  ?list<string>  $fields  those it is about; null for all */
    public function refusal(RecordType $type, Record $now, int $seen, ?array $fields = null): Refused
    {
        $rows = $this->db->select(
            "SELECT e.at, e.data, e.kind, e.via, p.name AS person, r.name AS rule, s.name AS behind FROM entries e LEFT JOIN people p ON p.id = e.actor_id LEFT JOIN rules r ON r.id = e.rule_id
            LEFT JOIN entries c ON c.id = e.cause_id AND c.kind IN ('fired', 'line') LEFT JOIN rules s ON s.id = c.rule_id
            WHERE e.record_type = ? AND e.record_id = ? AND e.version > ? AND EXISTS (SELECT 1 FROM field_history h WHERE h.entry_id = e.id AND h.record_type = e.record_type AND h.record_id = e.record_id) ORDER BY e.id",
            [$type->name, $now->id, $seen],
        );
        $since = [];
        foreach ($rows as $row) {
            $data = json_decode($row->data, true, 512, JSON_THROW_ON_ERROR);
            $changes = array_values(array_filter(
                $data['changes'] ?? [],
                static fn (array $change): bool => $fields === null || in_array($change['field'], $fields, true),
            ));
            $rule = in_array($row->kind, ['fired', 'line'], true) ? $row->rule : ($row->via === 'rule' ? $row->behind : null);
            if ($changes !== []) {
                $since[] = [
                    'at' => Columns::iso($row->at), 'who' => $rule === null ? ($row->person ?? 'somebody') : "rule {$rule}",
                    'changes' => $changes,
                ];
            }
        }
        $who = array_values(array_unique(array_column($since, 'who')));
        $what = array_values(array_unique(array_merge(
            ...array_map(
                static fn (array $one): array => array_map(
                    static fn (array $change): string => "{$change['label']} to {$change['after']}",
                    $one['changes'],
                ),
                $since,
            ),
        )));

        return new Refused(
            'stale_version',
            ($who === [] ? 'Somebody' : implode(' and ', $who)).' changed '.($fields === null || $what === [] ? "this {$type->inSentence()}" : implode(', ', $what)).' after you opened it. Look at what changed, then save again.',
            409,
            more: ['version' => $now->version, 'since' => $since],
        );
    }
}

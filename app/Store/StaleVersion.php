<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;

/** Tells a person whose copy of a record is old who changed what since, and when. */
final readonly class StaleVersion
{
    public function __construct(private Connection $db)
    {
    }

    public function refusal(RecordType $type, Record $now, int $seen): Refused
    {
        $rows = $this->db->select(
            "SELECT e.at, e.data, e.kind, p.name AS person, r.name AS rule FROM entries e LEFT JOIN people p ON p.id = e.actor_id LEFT JOIN rules r ON r.id = e.rule_id
            WHERE e.record_type = ? AND e.record_id = ? AND e.version > ? AND e.kind IN ('changed', 'fired') ORDER BY e.id",
            [$type->name, $now->id, $seen],
        );
        $since = [];
        foreach ($rows as $row) {
            $data = json_decode($row->data, true, 512, JSON_THROW_ON_ERROR);
            $since[] = [
                'at' => Columns::iso($row->at),
                'who' => $row->kind === 'fired' ? "rule {$row->rule}" : ($row->person ?? 'somebody'),
                'changes' => $data['changes'] ?? [],
            ];
        }
        $who = array_values(array_unique(array_column($since, 'who')));

        return new Refused(
            'stale_version',
            ($who === [] ? 'Somebody' : implode(' and ', $who))." changed this {$type->inSentence()} after you opened it. Look at what changed, then save again.",
            409,
            more: ['version' => $now->version, 'since' => $since],
        );
    }
}

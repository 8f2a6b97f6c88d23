<?php

declare(strict_types=1);

namespace App\Store;

use VividLedger\Engine\Facts;
use VividLedger\People\Person;
use VividLedger\Record\Record;

/** The engine's facts from the database. Made anew for each save, so that nothing is asked twice and nothing is stale. */
final class StoredFacts extends PeopleStore implements Facts
{
    /** @var array<string, ?Record> */
    private array $records = [];

    public function record(string $type, int $id): ?Record
    {
        return $this->records["{$type}:{$id}"] ??= $this->read($type, $id);
    }

    public function fallbackPerson(): ?Person
    {
        $id = $this->db->scalar('SELECT fallback_person_id FROM company WHERE id = 1');

        return $id === null ? null : $this->person((int) $id);
    }

    public function guardHeld(int $ruleId, string $type, int $recordId, string $key): bool
    {
        return $this->db->selectOne(
            'SELECT 1 FROM guard_keys WHERE rule_id = ? AND record_type = ? AND record_id = ? AND guard_key = ?',
            [$ruleId, $type, $recordId, $key],
        ) !== null;
    }

    private function read(string $typeName, int $id): ?Record
    {
        $type = $this->schemas->schema()->type($typeName);
        $row = $type === null ? null : $this->db->selectOne('SELECT * FROM `'.TypeTable::name($typeName).'` WHERE id = ?', [$id]);

        return $type === null || $row === null ? null : Columns::record($type, $row);
    }
}

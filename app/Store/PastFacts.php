<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\Engine\Facts;
use VividLedger\People\Person;
use VividLedger\Record\Record;

/** The engine's facts as they stood just after an entry: related records from their history, guards without later keys. */
final class PastFacts extends PeopleStore implements Facts
{
    /** @var array<string, ?Record> */
    private array $records = [];

    public function __construct(
        Connection $db,
        SchemaStore $schemas,
        private readonly History $history,
        private readonly int $entry,
    ) {
        parent::__construct($db, $schemas);
    }

    public function record(string $type, int $id): ?Record
    {
        if (! array_key_exists("{$type}:{$id}", $this->records)) {
            $recordType = $this->schemas->schema()->type($type);
            $this->records["{$type}:{$id}"] = $recordType === null ? null : $this->history->recordAfter($recordType, $id, $this->entry);
        }

        return $this->records["{$type}:{$id}"];
    }

    public function fallbackPerson(): ?Person
    {
        return null;
    }

    public function guardHeld(int $ruleId, string $type, int $recordId, string $key): bool
    {
        return $this->db->selectOne(
            'SELECT 1 FROM guard_keys WHERE rule_id = ? AND record_type = ? AND record_id = ? AND guard_key = ? AND entry_id < ?',
            [$ruleId, $type, $recordId, $key, $this->entry],
        ) !== null;
    }
}

<?php

declare(strict_types=1);

namespace App\Evidence\Rehearsal;

use VividLedger\Facts\ListedRecords;
use VividLedger\Record\Record;

/** The records that a proof was kept with, and no other. */
final class KeptRecords extends ListedRecords
{
    /** @var array<string, array<int, Record>> by type and id */
    private array $records = [];

    /** @param  list<Record>  $records */
    public function keep(array $records): void
    {
        foreach ($records as $record) {
            $this->records[$record->type][$record->id] = $record;
        }
    }

    public function record(string $type, int $id): ?Record
    {
        return $this->records[$type][$id] ?? null;
    }

    protected function referring(string $type, string $by, int $parent): iterable
    {
        $records = $this->records[$type] ?? [];
        ksort($records);

        return $records;
    }

    public function freshId(string $type): int
    {
        return max(0, ...array_keys($this->records[$type] ?? [])) + 1;
    }
}

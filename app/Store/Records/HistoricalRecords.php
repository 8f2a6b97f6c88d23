<?php

declare(strict_types=1);

namespace App\Store\Records;

use VividLedger\Facts\ListedRecords;
use VividLedger\Record\Record;

/** Records as they stood just after an entry. */
final class HistoricalRecords extends ListedRecords
{
    private int $made = 0;

    public function __construct(
        private readonly Timelines $timelines,
        private readonly int $entry,
    ) {
    }

    public function record(string $type, int $id): ?Record
    {
        return $this->timelines->record($type, $id, $this->entry);
    }

    protected function referring(string $type, string $by, int $parent): iterable
    {
        foreach ($this->timelines->referring($type, $by, $parent) as $id) {
            $record = $this->record($type, $id);
            if ($record !== null) {
                yield $record;
            }
        }
    }

    /** Nothing is written, so any number will do that no record has. */
    public function freshId(string $type): int
    {
        return PHP_INT_MAX - ++$this->made;
    }
}

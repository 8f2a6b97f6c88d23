<?php

declare(strict_types=1);

namespace App\Evidence\Rehearsal;

use App\Store\Records\StoredRecords;
use VividLedger\Facts\Children;
use VividLedger\Facts\Quiet;
use VividLedger\Facts\RecordFacts;
use VividLedger\Facts\Total;
use VividLedger\Record\Record;

/** The records of a rehearsal that is to be kept: every one that it looks at, and every one that it might have, is remembered. */
final readonly class SeenRecords implements RecordFacts
{
    private const MOST_CHILDREN = 200;

    public function __construct(private StoredRecords $records)
    {
    }

    public function record(string $type, int $id): ?Record
    {
        return $this->records->record($type, $id);
    }

    public function recordToChange(string $type, int $id): ?Record
    {
        return $this->records->recordToChange($type, $id);
    }

    public function children(Children $children, int $parent, int $most): array
    {
        // All of them: which of them count may change with what is supposed.
        $this->records->children(new Children($children->type, $children->by), $parent, self::MOST_CHILDREN);

        return $this->records->children($children, $parent, $most);
    }

    public function total(Total $total, int $parent, array $except): ?string
    {
        $this->records->children(new Children($total->children->type, $total->children->by), $parent, self::MOST_CHILDREN);

        return $this->records->total($total, $parent, $except);
    }

    public function freshId(string $type): int
    {
        return $this->records->freshId($type);
    }

    public function silentSince(Quiet $quiet, string $type, int $id): ?\DateTimeImmutable
    {
        return $this->records->silentSince($quiet, $type, $id);
    }

    public function silenceMark(Quiet $quiet, string $type, int $id): ?int
    {
        return $this->records->silenceMark($quiet, $type, $id);
    }
}

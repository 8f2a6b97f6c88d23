<?php

declare(strict_types=1);

namespace App\Evidence;

use App\Models\StoredRecord;
use App\Models\TeamTurn;
use App\Store\StoredFacts;
use VividLedger\Record\Record;

/** The facts of a rehearsal: read as they are, with nothing locked, taken or counted up. */
class PaperFacts extends StoredFacts
{
    public function recordToChange(string $type, int $id): ?Record
    {
        return $this->record($type, $id);
    }

    public function lastInTurn(string $team): ?int
    {
        return ((int) TeamTurn::query()->whereKey($team)->value('person_id')) ?: null;
    }

    public function freshId(string $type): int
    {
        return 1 + (int) StoredRecord::rowsOf($type)->max('id');
    }
}

<?php

declare(strict_types=1);

namespace App\Evidence;

use App\Store\StoredFacts;
use App\Store\TypeTable;
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
        $id = $this->db->scalar('SELECT person_id FROM team_turns WHERE team = ?', [$team]);

        return (int) $id === 0 ? null : (int) $id;
    }

    public function freshId(string $type): int
    {
        return (int) $this->db->scalar('SELECT COALESCE(MAX(id), 0) + 1 FROM `'.TypeTable::name($type).'`');
    }
}

<?php

declare(strict_types=1);

namespace App\Store\Records;

use App\Store\People\PeopleStore;
use App\Store\People\StoredPeople;
use App\Store\Rules\GuardsOfRecord;
use App\Store\SignOffs\StoredSignOffs;
use App\Store\Slips\StoredSlips;
use App\Store\Tasks\StoredTasks;
use App\Store\Types\SchemaStore;
use VividLedger\Facts\Facts;
use VividLedger\Facts\Ports;

/**
 * The engine's facts as of a moment: records from their history, guards without later keys, tasks and runs as they stood. Calendars
 * and people are those of today, as nothing is kept of what they were. Nothing is taken or locked.
 */
final readonly class PointInTimeFacts
{
    private PeopleStore $names;

    public function __construct(SchemaStore $schemas, private Timelines $timelines)
    {
        $this->names = new PeopleStore($schemas);
    }

    /** Just after an entry had been written, and before any rule answered it. */
    public function after(int $entry, \DateTimeImmutable $at): Facts
    {
        return new Ports(
            now: $at, records: new HistoricalRecords($this->timelines, $entry), guards: new GuardsOfRecord($entry),
            tasks: new StoredTasks($at), signOffs: new StoredSignOffs($at), slips: new StoredSlips($at, $at->getTimezone()),
            people: new StoredPeople($this->names, takes: false, until: $at), calendars: $this->names,
        );
    }
}

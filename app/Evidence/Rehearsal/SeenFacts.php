<?php

declare(strict_types=1);

namespace App\Evidence\Rehearsal;

use App\Store\People\PeopleStore;
use App\Store\People\StoredPeople;
use App\Store\Records\StoredRecords;
use App\Store\Rules\StoredGuards;
use App\Store\SignOffs\StoredSignOffs;
use App\Store\Slips\StoredSlips;
use App\Store\Tasks\StoredTasks;
use App\Store\Types\SchemaStore;
use VividLedger\Facts\Ports;
use VividLedger\Record\Record;

/** The facts of a rehearsal that is to be kept, with the records it looked at as they were. */
final class SeenFacts extends Ports
{
    private readonly StoredRecords $stored;

    public function __construct(SchemaStore $schemas, \DateTimeImmutable $at, \DateTimeZone $zone)
    {
        $names = new PeopleStore($schemas);
        $this->stored = new StoredRecords($schemas, $at, $zone, takes: false);
        parent::__construct(
            $at, new SeenRecords($this->stored), new StoredGuards, new StoredTasks, new StoredSignOffs, new StoredSlips($at, $zone),
            new StoredPeople($names, takes: false), $names,
        );
    }

    /** @return list<Record> */
    public function seen(): array
    {
        return $this->stored->seen();
    }
}

<?php

declare(strict_types=1);

namespace App\Evidence;

use App\Store\PeopleStore;
use App\Store\SchemaStore;
use App\Store\StoredGuards;
use App\Store\StoredPeople;
use App\Store\StoredRecords;
use App\Store\StoredSignOffs;
use App\Store\StoredSlips;
use App\Store\StoredTasks;
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

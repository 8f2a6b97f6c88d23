<?php

declare(strict_types=1);

namespace App\Store\Records;

use App\Store\People\PeopleStore;
use App\Store\People\StoredPeople;
use App\Store\Rules\StoredGuards;
use App\Store\SignOffs\StoredSignOffs;
use App\Store\Slips\StoredSlips;
use App\Store\Tasks\StoredTasks;
use App\Store\Types\SchemaStore;
use VividLedger\Facts\Ports;

/** The facts of a rehearsal: read as they are, with nothing locked, taken or counted up. */
final class PaperFacts extends Ports
{
    private readonly StoredRecords $stored;

    public function __construct(SchemaStore $schemas, \DateTimeImmutable $at, \DateTimeZone $zone)
    {
        $names = new PeopleStore($schemas);
        $this->stored = new StoredRecords($schemas, $at, $zone, takes: false);
        $people = new StoredPeople($names, takes: false);
        parent::__construct(
            $at, $this->stored, new StoredGuards, new StoredTasks, new StoredSignOffs, new StoredSlips($at, $zone), $people, $names,
        );
    }

    /** @param  list<int>  $ids  of records that will be asked for, fetched at once */
    public function rememberRecords(string $type, array $ids): void
    {
        $this->stored->remember($type, $ids);
    }
}

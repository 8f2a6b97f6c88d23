<?php

declare(strict_types=1);

namespace App\Store;

use VividLedger\Facts\Ports;

/** The facts of a rehearsal: read as they are, with nothing locked, taken or counted up. */
final class PaperFacts extends Ports
{
    public function __construct(SchemaStore $schemas, \DateTimeImmutable $at, \DateTimeZone $zone)
    {
        $names = new PeopleStore($schemas);
        $records = new StoredRecords($schemas, $at, $zone, takes: false);
        $people = new StoredPeople($names, takes: false);
        parent::__construct(
            $at, $records, new StoredGuards, new StoredTasks, new StoredSignOffs, new StoredSlips($at, $zone), $people, $names,
        );
    }
}

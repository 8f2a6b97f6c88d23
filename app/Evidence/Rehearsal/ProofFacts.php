<?php

declare(strict_types=1);

namespace App\Evidence\Rehearsal;

use App\Store\People\PeopleStore;
use App\Store\People\StoredPeople;
use App\Store\Types\SchemaStore;
use VividLedger\Facts\NothingYet;
use VividLedger\Facts\Ports;
use VividLedger\Record\Record;

/**
 * The facts a proof was kept with: its own records, and nothing else of what the company has since done. People, letters and calendars are
 * those of today.
 */
final class ProofFacts extends Ports
{
    private readonly KeptRecords $kept;

    public function __construct(SchemaStore $schemas, \DateTimeImmutable $at)
    {
        $names = new PeopleStore($schemas);
        $this->kept = new KeptRecords;
        $people = new KeptPeople(new StoredPeople($names, takes: false), $this->kept, $schemas->schema());
        parent::__construct($at, $this->kept, new NothingYet, new NothingYet, new NothingYet, new NothingYet, $people, $names);
    }

    /** @param  list<Record>  $records */
    public function keep(array $records): self
    {
        $this->kept->keep($records);

        return $this;
    }
}

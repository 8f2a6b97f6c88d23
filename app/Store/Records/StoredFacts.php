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

/** The engine's facts from the database. Made anew for each save, so that nothing is asked twice and nothing is stale. */
final class StoredFacts extends Ports
{
    private readonly StoredRecords $stored;

    private readonly StoredGuards $keys;

    private readonly StoredSignOffs $signOffs;

    public function __construct(SchemaStore $schemas, \DateTimeImmutable $at, \DateTimeZone $zone)
    {
        $this->stored = new StoredRecords($schemas, $at, $zone, takes: true);
        $this->keys = new StoredGuards;
        $names = new PeopleStore($schemas);
        $people = new StoredPeople($names, takes: true);
        $this->signOffs = new StoredSignOffs;
        $slips = new StoredSlips($at, $zone);
        parent::__construct($at, $this->stored, $this->keys, new StoredTasks, $this->signOffs, $slips, $people, $names);
    }

    /** Whether anything was answered from the records of a type. */
    public function hasLookedAt(string $type): bool
    {
        return $this->stored->hasLookedAt($type);
    }

    /** @param  list<int>  $ids  of records that will be asked for, fetched at once */
    public function rememberRecords(string $type, array $ids): void
    {
        $this->stored->remember($type, $ids);
    }

    /** @param  list<int>  $ids  of records that may be locked, looked at at once */
    public function rememberLocks(string $type, array $ids): void
    {
        $this->signOffs->remember($type, $ids);
    }

    /** A record that is kept from others, and was seen to be locked by no sign-off. */
    public function knowsOpen(string $type, int $id): void
    {
        $this->signOffs->knowsOpen($type, $id);
    }

    /** @param  list<int>  $ids  of records whose guards will be asked for, fetched at once */
    public function rememberGuards(int $rule, string $type, array $ids): void
    {
        $this->keys->remember($rule, $type, $ids);
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Facts;

use VividLedger\House\Names;
use VividLedger\House\Person;
use VividLedger\Message\Address;

/** What may be asked about people. */
interface PeopleFacts extends Names
{
    /** Who stands in when a rule finds nobody; null when the company has named no one. */
    public function fallbackPerson(): ?Person;

    /** @return list<Person> those of a team who are at work, by id */
    public function team(string $name): array;

    /** @return list<Person> those who have a role and are at work, by id */
    public function role(string $name): array;

    /** The one of a team whose turn it was last. */
    public function lastInTurn(string $team): ?int;

    /** @return list<int> people who follow a record */
    public function followers(string $type, int $id): array;

    /**
     * When messages went to an address, whichever rules sent them.
     *
     * @return list<\DateTimeImmutable> the oldest first
     */
    public function messagesTo(Address $address, \DateTimeImmutable $since): array;
}

<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Condition\Total;
use VividLedger\Message\Address;
use VividLedger\People\Names;
use VividLedger\People\Person;
use VividLedger\Record\Record;
use VividLedger\Rule\Trigger\FallsQuiet;
use VividLedger\Schema\Children;
use VividLedger\Time\Calendars;

/**
 * What the engine may ask about the world besides the change itself. Production answers from the database inside the
 * transaction of the save; tests and rehearsals answer from memory.
 */
interface Facts extends Calendars, Names
{
    public function now(): \DateTimeImmutable;

    /** A related record as it now is; null when there is none. */
    public function record(string $type, int $id): ?Record;

    /** The same for a line that will change it: nobody else changes it before the decision is written. */
    public function recordToChange(string $type, int $id): ?Record;

    /**
     * Children of a record, by id.
     *
     * @return list<Record> at most so many
     */
    public function children(Children $children, int $parent, int $most): array;

    /** @param  list<int>  $except ids of children that do not count */
    public function total(Total $total, int $parent, array $except): ?string;

    /** Who stands in when a rule finds nobody; null when the company has named no one. */
    public function fallbackPerson(): ?Person;

    /** @return list<Person> those of a team who are at work, by id */
    public function team(string $name): array;

    /** The one of a team whose turn it was last. */
    public function lastInTurn(string $team): ?int;

    /**
     * @param  list<int>  $people
     * @return array<int, int> how many open tasks each has
     */
    public function openTasks(array $people): array;

    /** @return list<int> people who follow a record */
    public function followers(string $type, int $id): array;

    /** Whether a rule has used a guard key for a record since its guard was made ready again for the so-manieth time. */
    public function guardHeld(int $ruleId, string $type, int $recordId, int $epoch, string $key): bool;

    public function guardState(int $ruleId, string $type, int $recordId): GuardState;

    /** The id for a new record; one that is never used leaves a gap. */
    public function freshId(string $type): int;

    /** @return list<Run> what is in play on a record, with its pencilled lines, the oldest first */
    public function inPlay(string $type, int $id): array;

    /** The tasks that one line of a run gave; null when it has given none. */
    public function tasksOf(int $run, string $key): ?TasksOfLine;

    /**
     * When messages went to an address, whichever rules sent them.
     *
     * @return list<\DateTimeImmutable> the oldest first
     */
    public function messagesTo(Address $address, \DateTimeImmutable $since): array;

    /** When what a silence of a record is counted from happened; null when nothing did, or it has been answered since. */
    public function silentSince(FallsQuiet $trigger, string $type, int $id): ?\DateTimeImmutable;

    /** What names that silence among all of the record; null when there is none. */
    public function silenceMark(FallsQuiet $trigger, string $type, int $id): ?int;
}

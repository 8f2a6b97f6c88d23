<?php

declare(strict_types=1);

namespace VividLedger\Facts;

use VividLedger\House\Calendars;
use VividLedger\House\Person;
use VividLedger\Message\Address;
use VividLedger\Record\Record;
use VividLedger\Time\WorkingCalendar;

/** The engine's facts, put together from one port of each sort. */
class Ports implements Facts
{
    public function __construct(
        private readonly \DateTimeImmutable $now,
        private readonly RecordFacts $records,
        private readonly GuardFacts $guards,
        private readonly TaskFacts $tasks,
        private readonly SignOffFacts $signOffs,
        private readonly SlipFacts $slips,
        private readonly PeopleFacts $people,
        private readonly Calendars $calendars,
    ) {
        if ($records instanceof ListedRecords) {
            $records->judgedIn($this);
        }
    }

    public function now(): \DateTimeImmutable
    {
        return $this->now;
    }

    public function record(string $type, int $id): ?Record
    {
        return $this->records->record($type, $id);
    }

    public function recordToChange(string $type, int $id): ?Record
    {
        return $this->records->recordToChange($type, $id);
    }

    public function children(Children $children, int $parent, int $most): array
    {
        return $this->records->children($children, $parent, $most);
    }

    public function total(Total $total, int $parent, array $except): ?string
    {
        return $this->records->total($total, $parent, $except);
    }

    public function freshId(string $type): int
    {
        return $this->records->freshId($type);
    }

    public function silentSince(Quiet $quiet, string $type, int $id): ?\DateTimeImmutable
    {
        return $this->records->silentSince($quiet, $type, $id);
    }

    public function silenceMark(Quiet $quiet, string $type, int $id): ?int
    {
        return $this->records->silenceMark($quiet, $type, $id);
    }

    public function guardHeld(int $ruleId, string $type, int $recordId, int $epoch, string $key): bool
    {
        return $this->guards->guardHeld($ruleId, $type, $recordId, $epoch, $key);
    }

    public function guardState(int $ruleId, string $type, int $recordId): GuardState
    {
        return $this->guards->guardState($ruleId, $type, $recordId);
    }

    public function openTasks(array $people): array
    {
        return $this->tasks->openTasks($people);
    }

    public function inPlay(string $type, int $id): array
    {
        return $this->tasks->inPlay($type, $id);
    }

    public function lockOn(string $type, int $id): ?Lock
    {
        return $this->signOffs->lockOn($type, $id);
    }

    public function signOffOn(string $type, int $id, string $called = ''): ?SignOffSeen
    {
        return $this->signOffs->signOffOn($type, $id, $called);
    }

    public function slipOn(string $type, int $id): ?SlipSeen
    {
        return $this->slips->slipOn($type, $id);
    }

    public function candidates(Candidates $candidates, array $except): ?int
    {
        return $this->slips->candidates($candidates, $except);
    }

    public function mayLapse(string $type, int $id): array
    {
        return $this->tasks->mayLapse($type, $id);
    }

    public function tasksOf(int $run, string $key): ?Awaited
    {
        return $this->tasks->tasksOf($run, $key);
    }

    public function person(int $id): ?Person
    {
        return $this->people->person($id);
    }

    public function title(string $type, int $id): ?string
    {
        return $this->people->title($type, $id);
    }

    public function fallbackPerson(): ?Person
    {
        return $this->people->fallbackPerson();
    }

    public function team(string $name): array
    {
        return $this->people->team($name);
    }

    public function role(string $name): array
    {
        return $this->people->role($name);
    }

    public function lastInTurn(string $team): ?int
    {
        return $this->people->lastInTurn($team);
    }

    public function followers(string $type, int $id): array
    {
        return $this->people->followers($type, $id);
    }

    public function messagesTo(Address $address, \DateTimeImmutable $since): array
    {
        return $this->people->messagesTo($address, $since);
    }

    public function calendar(?Person $person): WorkingCalendar
    {
        return $this->calendars->calendar($person);
    }
}

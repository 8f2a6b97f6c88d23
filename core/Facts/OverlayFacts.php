<?php

declare(strict_types=1);

namespace VividLedger\Facts;

use VividLedger\House\Person;
use VividLedger\Message\Address;
use VividLedger\Record\Record;
use VividLedger\Schema\Schema;
use VividLedger\Time\WorkingCalendar;

/** The world in the middle of a decision: the facts, with what the decision has changed so far laid over them. */
final class OverlayFacts implements Facts
{
    /** @var array<string, array<int, ?Record>> by type and id; null for one that is no more */
    private array $laid = [];

    /** @var array<string, int> whose turn was taken, by team */
    private array $turns = [];

    /** @var array<int, int> tasks given, by person */
    private array $given = [];

    /** @var array<int, true> ids of tasks that have lapsed */
    private array $lapsed = [];

    /** @var array<string, ?Lock> by record */
    private array $locks = [];

    /** @var array<string, true> names of record types that may be written, so that who reads one keeps it at once */
    private array $written = [];

    /** @var array<string, true> what texts have shown since somebody began to note it, as type, id and field */
    private array $told = [];

    /** @var array<string, int> messages sent, by address */
    private array $sent = [];

    private readonly RunningTotals $totals;

    public function __construct(
        private readonly Facts $below,
        private readonly Schema $schema,
    ) {
        $this->totals = new RunningTotals;
    }

    public function lay(Record $record): void
    {
        $this->put($record->type, $record->id, $record);
    }

    public function remove(Record $record): void
    {
        $this->put($record->type, $record->id, null);
    }

    private function put(string $type, int $id, ?Record $record): void
    {
        if ($this->totals->isNeededFor($type)) {
            $this->totals->changed($type, $this->record($type, $id), $record, $this);
        }
        $this->laid[$type][$id] = $record;
    }

    /** What texts show is noted anew from here on. */
    public function startTelling(): void
    {
        $this->told = [];
    }

    public function tell(string $what): void
    {
        $this->told[$what] = true;
    }

    /** @return list<string> each a type, the id of a record, and a field of it */
    public function told(): array
    {
        return array_keys($this->told);
    }

    /** @param  list<string>  $types  of which other records may be written from here on */
    public function mayWrite(array $types): void
    {
        $this->written += array_fill_keys($types, true);
    }

    public function takeTurn(string $team, int $person): void
    {
        $this->turns[$team] = $person;
    }

    /** @return array<string, int> whose turn was taken, by team */
    public function turnsTaken(): array
    {
        return $this->turns;
    }

    public function taskGiven(int $person): void
    {
        $this->given[$person] = ($this->given[$person] ?? 0) + 1;
    }

    public function now(): \DateTimeImmutable
    {
        return $this->below->now();
    }

    public function record(string $type, int $id): ?Record
    {
        if (isset($this->laid[$type]) && array_key_exists($id, $this->laid[$type])) {
            return $this->laid[$type][$id];
        }

        // Two who only read it, and both wrote it afterwards, would wait for each other.
        return isset($this->written[$type]) ? $this->below->recordToChange($type, $id) : $this->below->record($type, $id);
    }

    public function recordToChange(string $type, int $id): ?Record
    {
        return isset($this->laid[$type])
            && array_key_exists($id, $this->laid[$type]) ? $this->laid[$type][$id] : $this->below->recordToChange($type, $id);
    }

    public function children(Children $children, int $parent, int $most): array
    {
        $laid = $this->laid[$children->type] ?? [];
        $found = [];
        foreach ($this->below->children($children, $parent, $most + count($laid)) as $record) {
            if (! array_key_exists($record->id, $laid)) {
                $found[$record->id] = $record;
            }
        }
        foreach ($laid as $record) {
            if ($record !== null && $children->has($record, $parent, $this)) {
                $found[$record->id] = $record;
            }
        }
        ksort($found);

        return array_slice(array_values($found), 0, $most);
    }

    public function total(Total $total, int $parent, array $except): ?string
    {
        return $except === [] ? $this->totals->of($total, $parent, fn (): ?string => $this->asked($total, $parent, []))
            : $this->asked($total, $parent, $except);
    }

    /** @param  list<int>  $except */
    private function asked(Total $total, int $parent, array $except): ?string
    {
        $laid = [];
        $hidden = $except;
        foreach ($this->laid[$total->children->type] ?? [] as $id => $record) {
            if (in_array($id, $except, true)) {
                continue;
            }
            $hidden[] = $id;
            if ($record !== null && $total->children->has($record, $parent, $this)) {
                $laid[] = $record;
            }
        }
        sort($hidden);
        $below = $this->below->total($total, $parent, $hidden);

        return $laid === [] ? $below : $total->together($below, $total->over($laid));
    }

    public function person(int $id): ?Person
    {
        return $this->below->person($id);
    }

    public function title(string $type, int $id): ?string
    {
        $record = $this->laid[$type][$id] ?? null;
        $recordType = $record === null ? null : $this->schema->type($type);
        if ($record === null || $recordType === null) {
            return $this->below->title($type, $id);
        }
        $title = $record->value($recordType->title);

        return is_string($title) ? $title : $recordType->numberOf($id);
    }

    public function fallbackPerson(): ?Person
    {
        return $this->below->fallbackPerson();
    }

    public function team(string $name): array
    {
        return $this->below->team($name);
    }

    public function role(string $name): array
    {
        return $this->below->role($name);
    }

    public function lastInTurn(string $team): ?int
    {
        return $this->turns[$team] ?? $this->below->lastInTurn($team);
    }

    public function openTasks(array $people): array
    {
        $open = $this->below->openTasks($people);
        foreach ($people as $person) {
            $open[$person] = ($open[$person] ?? 0) + ($this->given[$person] ?? 0);
        }

        return $open;
    }

    public function followers(string $type, int $id): array
    {
        return $this->below->followers($type, $id);
    }

    public function guardHeld(int $ruleId, string $type, int $recordId, int $epoch, string $key): bool
    {
        return $this->below->guardHeld($ruleId, $type, $recordId, $epoch, $key);
    }

    public function guardState(int $ruleId, string $type, int $recordId): GuardState
    {
        return $this->below->guardState($ruleId, $type, $recordId);
    }

    public function freshId(string $type): int
    {
        return $this->below->freshId($type);
    }

    public function calendar(?Person $person): WorkingCalendar
    {
        return $this->below->calendar($person);
    }

    public function inPlay(string $type, int $id): array
    {
        return $this->below->inPlay($type, $id);
    }

    public function lockOn(string $type, int $id): ?Lock
    {
        $key = "{$type}:{$id}";

        return array_key_exists($key, $this->locks) ? $this->locks[$key] : $this->locks[$key] = $this->below->lockOn($type, $id);
    }

    public function slipOn(string $type, int $id): ?SlipSeen
    {
        return $this->below->slipOn($type, $id);
    }

    /** Those that this decision has changed or made count as they were: a list is read when a slip is sent, and not in between. */
    public function candidates(Candidates $candidates, array $except): ?int
    {
        return $this->below->candidates($candidates, $except);
    }

    public function signOffOn(string $type, int $id, string $called = ''): ?SignOffSeen
    {
        return $this->below->signOffOn($type, $id, $called);
    }

    public function mayLapse(string $type, int $id): array
    {
        return array_values(array_filter(
            $this->below->mayLapse($type, $id),
            fn (OpenTask $task): bool => ! isset($this->lapsed[$task->id]),
        ));
    }

    public function taskLapsed(OpenTask $task): void
    {
        $this->lapsed[$task->id] = true;
    }

    public function tasksOf(int $run, string $key): ?Awaited
    {
        return $this->below->tasksOf($run, $key);
    }

    /** Those of this decision included, so that two lines of it share one limit. */
    public function messagesTo(Address $address, \DateTimeImmutable $since): array
    {
        return [...$this->below->messagesTo($address, $since), ...array_fill(0, $this->sent[$address->key()] ?? 0, $this->now())];
    }

    public function messageSent(Address $address): void
    {
        $this->sent[$address->key()] = ($this->sent[$address->key()] ?? 0) + 1;
    }

    public function silentSince(Quiet $quiet, string $type, int $id): ?\DateTimeImmutable
    {
        return $this->below->silentSince($quiet, $type, $id);
    }

    public function silenceMark(Quiet $quiet, string $type, int $id): ?int
    {
        return $this->below->silenceMark($quiet, $type, $id);
    }
}

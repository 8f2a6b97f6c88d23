<?php

declare(strict_types=1);

namespace Tests\Core\Support;

use VividLedger\Engine\Firing;
use VividLedger\Engine\ReadyAgain;
use VividLedger\Engine\Step;
use VividLedger\Facts\Awaited;
use VividLedger\Facts\Candidates;
use VividLedger\Facts\Children;
use VividLedger\Facts\Facts;
use VividLedger\Facts\GuardState;
use VividLedger\Facts\Lock;
use VividLedger\Facts\Quiet;
use VividLedger\Facts\SignOffSeen;
use VividLedger\Facts\SlipSeen;
use VividLedger\Facts\Total;
use VividLedger\House\Directory;
use VividLedger\House\Person;
use VividLedger\Message\Address;
use VividLedger\Record\Record;
use VividLedger\Schema\Schema;
use VividLedger\Time\WorkingCalendar;
use VividLedger\Time\WorkingHours;

/** The engine's facts kept in arrays. */
abstract class Memory implements Directory, Facts
{
    public \DateTimeImmutable $now;

    public ?int $fallback = null;

    /** @var array<string, Record> */
    public array $records = [];

    /** @var array<int, Person> */
    public array $people = [];

    /**
     * @var array<string, array{int, int, \DateTimeImmutable, array<string, true>}> epoch, count, last firing and keys, by rule and record
     */
    public array $guards = [];

    /** @var array<string, int> */
    public array $turns = [];

    /** @var array<int, int> open tasks by person */
    public array $open = [];

    /** @var array<string, list<int>> followers by record */
    public array $follows = [];

    /** @var array<string, array<string, array<mixed>>> conditions by record type and name */
    public array $named = [];

    /** @var array<string, array<mixed>> */
    public array $kept = [];

    /** @var array<string, int> */
    public array $lastIds = [];

    /** Since when every record is silent, in whichever sense. */
    public ?\DateTimeImmutable $silence = null;

    /** @var array<int, WorkingCalendar> by person; 0 is the company's */
    public array $calendars = [];

    /** @var list<string> names of the hooks of other systems */
    public array $hooks = ['Enquiries'];

    /** @var list<string> names of the endpoints of other systems */
    public array $endpoints = ['Accounting'];

    /** @var array<string, array{subject: string, body: string, asks: list<mixed>}> what kept slips show and ask, by name */
    public array $slips = [];

    /** @var array<string, SlipSeen> the latest slip, by record */
    public array $slipsSeen = [];

    /** @var array<string, list<mixed>> steps of the routes by name */
    public array $routes = [];

    /** @var array<string, list<mixed>> rungs of the ladders by name */
    public array $ladders = [];

    /** @var array<string, Lock> by record */
    public array $locks = [];

    /** @var array<string, SignOffSeen> by record */
    public array $signOffs = [];

    public function __construct(private readonly Schema $types)
    {
        $this->now = new \DateTimeImmutable('2026-11-24T08:40:00Z');
    }

    /** Keeps what a step did to guards, turns and tasks, as production does. */
    public function use(Step $step): void
    {
        if ($step instanceof ReadyAgain) {
            $this->guards["{$step->rule->id}:{$step->record->type}:{$step->record->id}"] = [$step->epoch, 0, $this->now, []];
        }
        if (! $step instanceof Firing) {
            return;
        }
        $key = "{$step->rule->id}:{$step->before->type}:{$step->before->id}";
        [$epoch, $count, , $keys] = $this->guards[$key] ?? [0, 0, $this->now, []];
        if ($step->rule->guard->remembers() && isset($keys["{$step->epoch}:{$step->guardKey}"])) {
            throw new \LogicException("The guard key {$step->guardKey} was used twice.");
        }
        $this->guards[$key] = [$epoch, $count + 1, $this->now, $keys + ["{$step->epoch}:{$step->guardKey}" => true]];
        foreach ($step->performance->tasks as $task) {
            if ($task->person !== null) {
                $this->open[$task->person->id] = ($this->open[$task->person->id] ?? 0) + 1;
            }
        }
        foreach ($step->performance->follows as [$record, $person, $follows]) {
            $now = array_diff($this->follows["{$record->type}:{$record->id}"] ?? [], [$person]);
            $this->follows["{$record->type}:{$record->id}"] = array_values($follows ? [...$now, $person] : $now);
        }
    }

    public function now(): \DateTimeImmutable
    {
        return $this->now;
    }

    public function record(string $type, int $id): ?Record
    {
        return $this->records["{$type}:{$id}"] ?? null;
    }

    public function recordToChange(string $type, int $id): ?Record
    {
        return $this->record($type, $id);
    }

    public function children(Children $children, int $parent, int $most): array
    {
        $found = array_values(array_filter($this->records, fn (Record $record): bool => $children->has($record, $parent, $this)));
        usort($found, static fn (Record $one, Record $other): int => $one->id <=> $other->id);

        return array_slice($found, 0, $most);
    }

    public function total(Total $total, int $parent, array $except): ?string
    {
        return $total->over(array_filter(
            $this->children($total->children, $parent, PHP_INT_MAX),
            static fn (Record $record): bool => ! in_array($record->id, $except, true),
        ));
    }

    public function person(int $id): ?Person
    {
        return $this->people[$id] ?? null;
    }

    public function title(string $type, int $id): ?string
    {
        $record = $this->record($type, $id);
        $title = $record?->value($this->types->types[$type]->title);

        return $record === null ? null : (is_string($title) ? $title : $this->types->types[$type]->numberOf($id));
    }

    public function personByHandle(string $handle): ?Person
    {
        return array_values(array_filter($this->people, static fn (Person $person): bool => $person->handle === $handle))[0] ?? null;
    }

    public function peopleAtWork(): array
    {
        return array_values(array_filter($this->people, static fn (Person $person): bool => $person->active));
    }

    public function teams(): array
    {
        return array_values(array_unique(array_map(static fn (Person $person): string => $person->team, $this->peopleAtWork())));
    }

    public function team(string $name): array
    {
        return array_values(array_filter($this->peopleAtWork(), static fn (Person $person): bool => $person->team === $name));
    }

    public function role(string $name): array
    {
        return array_values(array_filter($this->peopleAtWork(), static fn (Person $person): bool => $person->role === $name));
    }

    public function lastInTurn(string $team): ?int
    {
        return $this->turns[$team] ?? null;
    }

    public function openTasks(array $people): array
    {
        return array_intersect_key($this->open, array_flip($people));
    }

    public function followers(string $type, int $id): array
    {
        return $this->follows["{$type}:{$id}"] ?? [];
    }

    public function namedConditions(string $type): array
    {
        return array_keys($this->named[$type] ?? []);
    }

    public function namedCondition(string $type, string $name): ?array
    {
        return $this->named[$type][$name] ?? null;
    }

    public function letters(string $type): array
    {
        return array_keys($this->kept);
    }

    public function letter(string $name): ?array
    {
        return $this->kept[$name] ?? null;
    }

    public function fallbackPerson(): ?Person
    {
        return $this->fallback === null ? null : $this->people[$this->fallback];
    }

    public function guardHeld(int $ruleId, string $type, int $recordId, int $epoch, string $key): bool
    {
        return isset($this->guards["{$ruleId}:{$type}:{$recordId}"][3]["{$epoch}:{$key}"]);
    }

    public function guardState(int $ruleId, string $type, int $recordId): GuardState
    {
        $guard = $this->guards["{$ruleId}:{$type}:{$recordId}"] ?? null;

        return $guard === null ? new GuardState : new GuardState($guard[0], $guard[1], $guard[1] === 0 ? null : $guard[2]);
    }

    public function freshId(string $type): int
    {
        $ids = array_map(static fn (Record $record): int => $record->type === $type ? $record->id : 0, $this->records);

        return $this->lastIds[$type] = max($this->lastIds[$type] ?? 0, 0, ...array_values($ids)) + 1;
    }

    public function calendar(?Person $person): WorkingCalendar
    {
        return $this->calendars[$person?->id ?? 0] ?? $this->calendars[0] ??= new WorkingCalendar(
            WorkingHours::of(array_fill_keys(['1', '2', '3', '4', '5'], [['09:00', '17:00']]), []), new \DateTimeZone('Europe/Berlin'),
        );
    }

    public function endpoints(): array
    {
        return $this->endpoints;
    }

    public function hooks(string $type): array
    {
        return $this->hooks;
    }

    public function slips(string $type): array
    {
        return array_keys($this->slips);
    }

    public function slip(string $type, string $name): ?array
    {
        return $this->slips[$name] ?? null;
    }

    public function slipOn(string $type, int $id): ?SlipSeen
    {
        return $this->slipsSeen["{$type}:{$id}"] ?? null;
    }

    public function candidates(Candidates $candidates, array $except): ?int
    {
        foreach ($candidates->among($this->records, $this) as $record) {
            if (! in_array($record->id, $except, true)) {
                return $record->id;
            }
        }

        return null;
    }

    public function routes(string $type): array
    {
        return array_keys($this->routes);
    }

    public function route(string $type, string $name): ?array
    {
        return $this->routes[$name] ?? null;
    }

    public function ladders(): array
    {
        return array_keys($this->ladders);
    }

    public function ladder(string $name): ?array
    {
        return $this->ladders[$name] ?? null;
    }

    public function inPlay(string $type, int $id): array
    {
        return [];
    }

    public function lockOn(string $type, int $id): ?Lock
    {
        return $this->locks["{$type}:{$id}"] ?? null;
    }

    public function signOffOn(string $type, int $id, string $called = ''): ?SignOffSeen
    {
        return $this->signOffs["{$type}:{$id}"] ?? null;
    }

    public function mayLapse(string $type, int $id): array
    {
        return [];
    }

    public function tasksOf(int $run, string $key): ?Awaited
    {
        return null;
    }

    public function messagesTo(Address $address, \DateTimeImmutable $since): array
    {
        return [];
    }

    public function silentSince(Quiet $quiet, string $type, int $id): ?\DateTimeImmutable
    {
        return $this->silence;
    }

    public function silenceMark(Quiet $quiet, string $type, int $id): ?int
    {
        return null;
    }
}

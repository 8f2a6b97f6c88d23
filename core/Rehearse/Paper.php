<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Engine\Decision;
use VividLedger\Engine\ExecutedStep;
use VividLedger\Engine\Firing;
use VividLedger\Engine\ReadyAgain;
use VividLedger\Engine\Step;
use VividLedger\Facts\Awaited;
use VividLedger\Facts\Candidates;
use VividLedger\Facts\Children;
use VividLedger\Facts\Facts;
use VividLedger\Facts\GuardState;
use VividLedger\Facts\Lock;
use VividLedger\Facts\OverlayFacts;
use VividLedger\Facts\Quiet;
use VividLedger\Facts\SignOffSeen;
use VividLedger\Facts\SlipSeen;
use VividLedger\Facts\Total;
use VividLedger\House\Person;
use VividLedger\Message\Address;
use VividLedger\Record\Record;
use VividLedger\Schema\Schema;
use VividLedger\Time\WorkingCalendar;

/**
 * The world on paper: the facts as they are, with everything that a rehearsal has brought about laid over them. It keeps what
 * production keeps in tables, and touches nothing.
 */
final class Paper implements Facts
{
    public readonly PaperRuns $runs;

    private readonly OverlayFacts $records;

    /**
     * @var array<string, array{int, int, ?\DateTimeImmutable, array<string, true>}> epoch, count, last firing and keys, by rule and
     *     record
     */
    private array $guards = [];

    /** @var array<int, true> rules whose guards count as never used */
    private array $new = [];

    /** @var array<string, int> */
    private array $turns = [];

    /** @var array<string, list<int>> followers by record */
    private array $follows = [];

    /** @var array<string, list<\DateTimeImmutable>> by address */
    private array $sent = [];

    /** @var array<string, int> ids given on paper, by type */
    private array $ids = [];

    /** @var array<int, list<array{\DateTimeImmutable, \DateTimeImmutable}>> when somebody is away, by person */
    private array $away = [];

    /** @var list<string> */
    private array $holidays = [];

    /** @var array<int, WorkingCalendar> with the holidays of the rehearsal, by person */
    private array $calendars = [];

    public function __construct(
        private readonly Facts $below,
        Schema $schema,
        public \DateTimeImmutable $now,
    ) {
        $this->runs = new PaperRuns;
        $this->records = new OverlayFacts($below, $schema);
    }

    /** Takes the guards of a rule as never used: a rehearsal shows what it does the first time. */
    public function asIfNew(int $rule): void
    {
        $this->new[$rule] = true;
    }

    public function keep(Record $record): void
    {
        $this->records->lay($record);
    }

    public function remove(Record $record): void
    {
        $this->records->remove($record);
    }

    public function away(int $person, \DateTimeImmutable $from, \DateTimeImmutable $until): void
    {
        $this->away[$person][] = [$from, $until];
    }

    /** @param  string  $day  "2026-12-25", on which nobody works */
    public function holiday(string $day): void
    {
        $this->holidays[] = $day;
        $this->calendars = [];
    }

    /** Takes in what was decided, except for its steps. */
    public function take(Decision $decision): void
    {
        foreach ($decision->others as [, $other]) {
            $this->keep($other);
        }
        if ($decision->after !== null) {
            $this->keep($decision->after);
        }
        $this->turns = array_replace($this->turns, $decision->turns);
    }

    /** @param  int  $entry  number on paper of what happened */
    public function takeStep(Step $step, int $entry): void
    {
        $this->runs->take($step, $entry, $this->now);
        if ($step instanceof ReadyAgain) {
            $this->guards["{$step->rule->id}:{$step->record->type}:{$step->record->id}"] = [$step->epoch, 0, null, []];
        }
        if (! $step instanceof ExecutedStep) {
            return;
        }
        if ($step instanceof Firing) {
            $key = "{$step->rule->id}:{$step->before->type}:{$step->before->id}";
            [$epoch, $count, , $keys] = $this->guards[$key] ?? $this->guardBelow($step->rule->id, $step->before);
            $this->guards[$key] = [$epoch, $count + 1, $this->now, $keys + ["{$step->epoch}:{$step->guardKey}" => true]];
        }
        foreach ($step->performance->messages as $message) {
            foreach ([...$message->to, ...$message->cc] as $address) {
                $this->sent[$address->key()][] = $step->performance->now;
            }
        }
        foreach ($step->performance->follows as [$record, $person, $follows]) {
            $now = array_values(array_diff($this->followers($record->type, $record->id), [$person]));
            $this->follows["{$record->type}:{$record->id}"] = $follows ? [...$now, $person] : $now;
        }
    }

    /** @return array{int, int, ?\DateTimeImmutable, array<string, true>} */
    private function guardBelow(int $rule, Record $record): array
    {
        $state = $this->guardState($rule, $record->type, $record->id);

        return [$state->epoch, $state->count, $state->last, []];
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
        return $this->records->record($type, $id);
    }

    public function children(Children $children, int $parent, int $most): array
    {
        return $this->records->children($children, $parent, $most);
    }

    public function total(Total $total, int $parent, array $except): ?string
    {
        return $this->records->total($total, $parent, $except);
    }

    public function title(string $type, int $id): ?string
    {
        return $this->records->title($type, $id);
    }

    public function person(int $id): ?Person
    {
        return $this->atWork($this->below->person($id));
    }

    public function fallbackPerson(): ?Person
    {
        return $this->below->fallbackPerson();
    }

    public function team(string $name): array
    {
        return $this->present($this->below->team($name));
    }

    public function role(string $name): array
    {
        return $this->present($this->below->role($name));
    }

    public function lastInTurn(string $team): ?int
    {
        return $this->turns[$team] ?? $this->below->lastInTurn($team);
    }

    public function openTasks(array $people): array
    {
        $open = $this->below->openTasks($people);
        foreach ($this->runs->openTasks($people) as $person => $count) {
            $open[$person] = ($open[$person] ?? 0) + $count;
        }

        return $open;
    }

    public function followers(string $type, int $id): array
    {
        return $this->follows["{$type}:{$id}"] ?? $this->below->followers($type, $id);
    }

    public function guardHeld(int $ruleId, string $type, int $recordId, int $epoch, string $key): bool
    {
        return isset(
            $this->guards["{$ruleId}:{$type}:{$recordId}"][3]["{$epoch}:{$key}"],
        ) || (! isset($this->new[$ruleId]) && $this->below->guardHeld($ruleId, $type, $recordId, $epoch, $key));
    }

    public function guardState(int $ruleId, string $type, int $recordId): GuardState
    {
        $guard = $this->guards["{$ruleId}:{$type}:{$recordId}"] ?? null;

        return $guard === null ? (isset($this->new[$ruleId]) ? new GuardState : $this->below->guardState($ruleId, $type, $recordId))
            : new GuardState(
                $guard[0],
                $guard[1],
                $guard[2],
            );
    }

    public function freshId(string $type): int
    {
        return $this->ids[$type] = ($this->ids[$type] ?? $this->below->freshId($type) - 1) + 1;
    }

    public function calendar(?Person $person): WorkingCalendar
    {
        $calendar = $this->below->calendar($person);

        return $this->holidays === [] ? $calendar : $this->calendars[$person->id ?? 0] ??= $calendar->withHolidays($this->holidays);
    }

    public function inPlay(string $type, int $id): array
    {
        return $this->runs->on($type, $id);
    }

    public function lockOn(string $type, int $id): ?Lock
    {
        return $this->runs->signOffs->lockOn($type, $id);
    }

    public function signOffOn(string $type, int $id, string $called = ''): ?SignOffSeen
    {
        return $this->runs->signOffs->signOffOn($type, $id, $called) ?? $this->below->signOffOn($type, $id, $called);
    }

    public function slipOn(string $type, int $id): ?SlipSeen
    {
        return $this->runs->slips->slipOn($type, $id) ?? $this->below->slipOn($type, $id);
    }

    public function candidates(Candidates $candidates, array $except): ?int
    {
        return $this->below->candidates($candidates, $except);
    }

    public function mayLapse(string $type, int $id): array
    {
        return $this->runs->mayLapse($type, $id, $this->below->mayLapse($type, $id));
    }

    public function tasksOf(int $run, string $key): ?Awaited
    {
        return $this->runs->tasksOf($run, $key);
    }

    public function messagesTo(Address $address, \DateTimeImmutable $since): array
    {
        return [
            ...$this->below->messagesTo($address, $since),
            ...array_values(array_filter($this->sent[$address->key()] ?? [], static fn (\DateTimeImmutable $at): bool => $at >= $since)),
        ];
    }

    private function atWork(?Person $person): ?Person
    {
        return $person === null || ! $this->isAway($person->id) ? $person : $person->absent();
    }

    /**
     * @param  list<Person>  $people
     * @return list<Person> those who are there on this day of the rehearsal
     */
    private function present(array $people): array
    {
        return array_values(array_filter($people, fn (Person $person): bool => ! $this->isAway($person->id)));
    }

    private function isAway(int $person): bool
    {
        foreach ($this->away[$person] ?? [] as [$from, $until]) {
            if ($this->now >= $from && $this->now < $until) {
                return true;
            }
        }

        return false;
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

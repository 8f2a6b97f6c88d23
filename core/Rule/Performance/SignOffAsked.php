<?php

declare(strict_types=1);

namespace VividLedger\Rule\Performance;

use VividLedger\Facts\Awaited;
use VividLedger\Record\Record;
use VividLedger\Record\WaitedSort;
use VividLedger\SignOff\Hold;
use VividLedger\SignOff\Moved;
use VividLedger\SignOff\Route;
use VividLedger\SignOff\Seat;
use VividLedger\SignOff\SeatState;
use VividLedger\SignOff\SignOff;

/** A sign-off that a line asked for, as it began. */
final readonly class SignOffAsked
{
    /**
     * @param  int  $place  of the line in its page, from 0: its route is read there
     * @param  string  $key  by which later lines wait for it; empty for none
     * @param  string  $why  what those who are asked read
     * @param  ?\DateTimeImmutable  $wakes  when it has to be tended
     * @param  list<string>  $tells  what that shows, each a type, the id of a record, and a field of it
     */
    public function __construct(
        public Record $record,
        public Moved $moved,
        public Route $route,
        public int $place,
        public string $key,
        public string $why,
        public ?\DateTimeImmutable $wakes = null,
        public Hold $hold = Hold::Nothing,
        public array $tells = [],
    ) {
    }

    /** Whether those who are asked at the step at hand get a task, too. */
    public function givesTask(): bool
    {
        return $this->route->steps[$this->moved->signOff->step]->task ?? false;
    }

    /** @return list<int> ids of those who are asked first */
    public function waiting(): array
    {
        return array_map(static fn (Seat $seat): int => $seat->person, $this->moved->signOff->ofStep(SeatState::Waiting));
    }

    public function awaited(): Awaited
    {
        return self::awaits($this->moved->signOff);
    }

    /**
     * How far it has come, for lines that wait for it.
     *
     * @param  ?\DateTimeImmutable  $then  as it was at a moment; null for now
     */
    public static function awaits(SignOff $signOff, ?\DateTimeImmutable $then = null): Awaited
    {
        $isPast = static fn (\DateTimeImmutable $at): bool => $then === null || $at <= $then;
        $ended = $signOff->endedAt !== null && $isPast($signOff->endedAt) ? $signOff->endedAt : null;

        return new Awaited(
            open: $ended === null ? 1 : 0, givenAt: $signOff->startedAt, due: null, doneAt: $ended,
            ended: $ended === null ? '' : $signOff->status->value, steps: array_filter($signOff->stepsAgreed(), $isPast),
            sort: WaitedSort::SignOff, yes: array_values(array_filter($signOff->yes(), $isPast)),
        );
    }
}

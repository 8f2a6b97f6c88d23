<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Facts\SignOffSeen;

/** A sign-off as it stands: the step at hand, everybody who was asked so far, and who comes next at this step. */
final readonly class SignOff
{
    /**
     * @param  ?int  $asker  id of the person whose save asked for it; null when nobody in person did
     * @param  int  $step  at hand, from 0
     * @param  int  $needed  how many have to agree at this step
     * @param  list<Seat>  $seats  in the order they were asked
     * @param  list<int>  $queue  ids of those who are asked next at this step, one after another
     */
    public function __construct(
        public ?int $asker,
        public \DateTimeImmutable $startedAt,
        public int $step = 0,
        public int $needed = 0,
        public array $seats = [],
        public array $queue = [],
        public SignOffStatus $status = SignOffStatus::Waiting,
        public ?\DateTimeImmutable $endedAt = null,
    ) {
    }

    public function isOpen(): bool
    {
        return $this->status === SignOffStatus::Waiting;
    }

    /** @return list<Seat> of the step at hand */
    public function ofStep(?SeatState $state = null): array
    {
        return array_values(array_filter(
            $this->seats,
            fn (Seat $seat): bool => $seat->step === $this->step && ($state === null || $seat->state === $state),
        ));
    }

    /** The place of somebody who is being asked; null when they are not. */
    public function waitsFor(int $person): ?int
    {
        foreach ($this->seats as $place => $seat) {
            if ($seat->person === $person && $seat->isWaiting()) {
                return $place;
            }
        }

        return null;
    }

    /**
     * Whether somebody has said yes.
     *
     * @param  ?int  $at  the step; null for any
     */
    public function hasAgreed(int $person, ?int $at = null): bool
    {
        foreach ($this->seats as $seat) {
            $counts = $at === null ? ! $seat->byItself : $seat->step === $at;
            if ($seat->person === $person && $seat->state === SeatState::Yes && $counts) {
                return true;
            }
        }

        return false;
    }

    /** Whether somebody was asked because the way of the step led to them, and not in the place of somebody else. */
    public function cameByTheWay(Seat $seat): bool
    {
        foreach ($this->seats as $other) {
            if ($other->step === $seat->step && $other->state === SeatState::PassedOn && $other->at == $seat->askedAt) {
                return false;
            }
        }

        return $seat->for === null && $seat->round === 1;
    }

    /**
     * When each step was agreed to that has been.
     *
     * @return array<int, \DateTimeImmutable> by step, from 0
     */
    public function stepsAgreed(): array
    {
        $agreed = [];
        foreach ($this->seats as $seat) {
            $isPast = $seat->step < $this->step || $this->status === SignOffStatus::Agreed;
            if ($isPast && $seat->state === SeatState::Yes && $seat->at !== null) {
                $agreed[$seat->step] = max($agreed[$seat->step] ?? $seat->at, $seat->at);
            }
        }

        return $agreed;
    }

    /** @return list<\DateTimeImmutable> when people agreed, one after the other; what the route counts as a yes is nobody's */
    public function yes(): array
    {
        $yes = [];
        foreach ($this->seats as $seat) {
            if ($seat->state === SeatState::Yes && ! $seat->byItself && $seat->at !== null) {
                $yes[] = $seat->at;
            }
        }
        sort($yes);

        return $yes;
    }

    /** As texts and lines look at it. */
    public function seen(string $why): SignOffSeen
    {
        $spoken = array_values(array_filter(
            $this->seats,
            static fn (Seat $seat): bool => ! $seat->byItself && in_array($seat->state, [SeatState::Yes, SeatState::No], true),
        ));
        usort($spoken, static fn (Seat $one, Seat $other): int => [$one->at, $one->step] <=> [$other->at, $other->step]);
        $said = array_map(static fn (Seat $seat): array => [
            'person' => $seat->person, 'isYes' => $seat->state === SeatState::Yes, 'comment' => $seat->comment,
        ], $spoken);

        return new SignOffSeen(
            status: $this->status->value, why: $why, asker: $this->asker, step: $this->step, steps: count($this->stepsAgreed()),
            said: $said, waiting: array_map(static fn (Seat $seat): int => $seat->person, $this->ofStep(SeatState::Waiting)),
        );
    }

    /** Whether somebody has a part in the step at hand already, or will have. */
    public function sits(int $person): bool
    {
        return in_array($person, $this->queue, true)
            || in_array($person, array_map(static fn (Seat $seat): int => $seat->person, $this->ofStep()), true);
    }

    public function withSeat(Seat $seat, ?int $place = null): self
    {
        $seats = $this->seats;
        $seats[$place ?? count($seats)] = $seat;

        return $this->with(seats: array_values($seats));
    }

    /**
     * @param  ?list<Seat>  $seats
     * @param  ?list<int>  $queue
     */
    public function with(?int $step = null, ?int $needed = null, ?array $seats = null, ?array $queue = null): self
    {
        return new self(
            asker: $this->asker, startedAt: $this->startedAt, step: $step ?? $this->step, needed: $needed ?? $this->needed,
            seats: $seats ?? $this->seats, queue: $queue ?? $this->queue, status: $this->status, endedAt: $this->endedAt,
        );
    }

    /** Whoever is still being asked, or would be next, need not answer any more. */
    public function answered(\DateTimeImmutable $at): self
    {
        return $this->with(queue: [], seats: array_map(
            static fn (Seat $seat): Seat => $seat->isWaiting() ? $seat->becomes(SeatState::Over, $at) : $seat,
            $this->seats,
        ));
    }

    public function ended(SignOffStatus $status, \DateTimeImmutable $at): self
    {
        return new self(
            asker: $this->asker, startedAt: $this->startedAt, step: $this->step, needed: $this->needed,
            seats: $this->answered($at)->seats, queue: [], status: $status, endedAt: $at,
        );
    }
}

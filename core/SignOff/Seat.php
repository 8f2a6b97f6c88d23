<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

/** Somebody's part in a sign-off: who was asked at which step, until when, and what came of it. */
final readonly class Seat
{
    /**
     * @param  int  $step  from 0
     * @param  int  $person  id
     * @param  int  $round  the how-manieth time they are asked, from 1
     * @param  int  $reminded  how often in this round
     * @param  ?\DateTimeImmutable  $due  when their time runs out; null when it never does
     * @param  bool  $byItself  whether it was decided by the route, and not by the person
     */
    public function __construct(
        public int $step,
        public int $person,
        public \DateTimeImmutable $askedAt,
        public ?\DateTimeImmutable $due = null,
        public int $round = 1,
        public int $reminded = 0,
        public SeatState $state = SeatState::Waiting,
        public ?\DateTimeImmutable $at = null,
        public string $comment = '',
        public bool $byItself = false,
    ) {
    }

    public function becomes(SeatState $state, \DateTimeImmutable $at, string $comment = '', bool $byItself = false): self
    {
        return new self(
            $this->step, $this->person, $this->askedAt, $this->due, $this->round, $this->reminded, $state, $at, $comment, $byItself,
        );
    }

    public function remindedOnceMore(): self
    {
        return new self($this->step, $this->person, $this->askedAt, $this->due, $this->round, $this->reminded + 1);
    }

    public function isWaiting(): bool
    {
        return $this->state === SeatState::Waiting;
    }
}

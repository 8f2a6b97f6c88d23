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
     * @param  ?int  $for  id of the absent person for whom they decide; null for themselves
     * @param  ?\DateTimeImmutable  $heldAt  since when their time stands still, because a question of theirs is open
     * @param  list<Talk>  $talk  what they asked back and what they were answered
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
        public ?int $for = null,
        public ?\DateTimeImmutable $heldAt = null,
        public array $talk = [],
    ) {
    }

    public function becomes(SeatState $state, \DateTimeImmutable $at, string $comment = '', bool $byItself = false): self
    {
        return new self(
            step: $this->step, person: $this->person, askedAt: $this->askedAt, due: $this->due, round: $this->round,
            reminded: $this->reminded, state: $state, at: $at, comment: $comment, byItself: $byItself, for: $this->for, heldAt: null,
            talk: $this->talk,
        );
    }

    public function remindedOnceMore(): self
    {
        return $this->with(reminded: $this->reminded + 1);
    }

    /** Asked once more, from the beginning. */
    public function again(\DateTimeImmutable $at, ?\DateTimeImmutable $due): self
    {
        return new self($this->step, $this->person, $at, $due, $this->round + 1, for: $this->for, talk: $this->talk);
    }

    /** A question is asked back, so their time stands still. */
    public function asks(Talk $question): self
    {
        return $this->with(heldAt: $this->heldAt ?? $question->at, talk: [...$this->talk, $question]);
    }

    /** The question is answered: the time that it took is added to what they had. */
    public function hears(Talk $answer): self
    {
        return $this->goesOn($answer->at, [...$this->talk, $answer]);
    }

    /**
     * Time goes on.
     *
     * @param  ?list<Talk>  $talk  as it is by then; null where nothing was said
     */
    public function goesOn(\DateTimeImmutable $at, ?array $talk = null): self
    {
        $took = new \DateInterval('PT'.max(0, $at->getTimestamp() - ($this->heldAt ?? $at)->getTimestamp()).'S');

        return new self(
            step: $this->step, person: $this->person, askedAt: $this->askedAt->add($took), due: $this->due?->add($took),
            round: $this->round, reminded: $this->reminded, for: $this->for, talk: $talk ?? $this->talk,
        );
    }

    public function isWaiting(): bool
    {
        return $this->state === SeatState::Waiting;
    }

    /** Whether a question they asked back is still open. */
    public function asksBack(): bool
    {
        return $this->isWaiting() && $this->heldAt !== null;
    }

    /** @param  ?list<Talk>  $talk */
    private function with(?int $reminded = null, ?\DateTimeImmutable $heldAt = null, ?array $talk = null): self
    {
        return new self(
            step: $this->step, person: $this->person, askedAt: $this->askedAt, due: $this->due, round: $this->round,
            reminded: $reminded ?? $this->reminded, state: $this->state, at: $this->at, comment: $this->comment,
            byItself: $this->byItself, for: $this->for, heldAt: $heldAt ?? $this->heldAt, talk: $talk ?? $this->talk,
        );
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Message\Address;

/** Somebody's turn to answer a slip. */
final readonly class SlipTurn
{
    /**
     * @param  string  $name  of whoever is asked
     * @param  ?Address  $mail  where letters go; null for nowhere
     * @param  ?Address  $text  where text messages go; null for nowhere
     * @param  ?int  $candidate  id of the record or the person that the list led to; null where no list did
     * @param  ?\DateTimeImmutable  $due  when their time runs out; null for never
     * @param  int  $nudged  how often they were reminded
     */
    public function __construct(
        public string $name,
        public ?Address $mail,
        public ?Address $text,
        public ?int $candidate,
        public \DateTimeImmutable $sentAt,
        public ?\DateTimeImmutable $due = null,
        public int $nudged = 0,
        public TurnState $state = TurnState::Waiting,
        public ?\DateTimeImmutable $endedAt = null,
    ) {
    }

    public function isWaiting(): bool
    {
        return $this->state === TurnState::Waiting;
    }

    public function nudgedOnceMore(): self
    {
        return new self(
            name: $this->name, mail: $this->mail, text: $this->text, candidate: $this->candidate, sentAt: $this->sentAt, due: $this->due,
            nudged: $this->nudged + 1,
        );
    }

    public function ended(TurnState $state, \DateTimeImmutable $at): self
    {
        return new self(
            name: $this->name, mail: $this->mail, text: $this->text, candidate: $this->candidate, sentAt: $this->sentAt, due: $this->due,
            nudged: $this->nudged, state: $state, endedAt: $at,
        );
    }
}

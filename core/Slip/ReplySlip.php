<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Facts\Awaited;
use VividLedger\Record\WaitedSort;

/** A slip as it stands: everybody whose turn it was, the last of whom may still answer. */
final readonly class ReplySlip
{
    /**
     * @param  list<SlipTurn>  $turns  in the order they were asked
     * @param  list<string>  $chosen  what was chosen, as it reads
     */
    public function __construct(
        public \DateTimeImmutable $startedAt,
        public array $turns = [],
        public SlipStatus $status = SlipStatus::Waiting,
        public ?\DateTimeImmutable $endedAt = null,
        public array $chosen = [],
    ) {
    }

    public function isOpen(): bool
    {
        return $this->status === SlipStatus::Waiting;
    }

    /** Whose turn it is; null when nobody's. */
    public function turn(): ?SlipTurn
    {
        $last = $this->turns[count($this->turns) - 1] ?? null;

        return $last?->isWaiting() === true ? $last : null;
    }

    /** @return list<int> ids of those whom the list has led to */
    public function candidates(): array
    {
        return array_values(array_filter(array_map(static fn (SlipTurn $turn): ?int => $turn->candidate, $this->turns)));
    }

    public function withTurn(SlipTurn $turn, bool $inPlaceOfLast = false): self
    {
        $turns = $inPlaceOfLast ? array_slice($this->turns, 0, -1) : $this->turns;

        return new self($this->startedAt, [...$turns, $turn], $this->status, $this->endedAt, $this->chosen);
    }

    /** @param  list<string>  $chosen */
    public function ended(SlipStatus $status, \DateTimeImmutable $at, array $chosen = []): self
    {
        $turn = $this->turn();
        $state = $status === SlipStatus::Answered ? TurnState::Answered : TurnState::Over;
        $turns = $turn === null ? $this->turns : [...array_slice($this->turns, 0, -1), $turn->ended($state, $at)];

        return new self($this->startedAt, $turns, $status, $at, $chosen);
    }

    /** How far it has come, for lines that wait for it. */
    public function awaited(): Awaited
    {
        return new Awaited(
            $this->isOpen() ? 1 : 0, $this->startedAt, null, $this->endedAt, $this->isOpen() ? '' : $this->status->value,
            said: $this->chosen, sort: WaitedSort::Slip,
        );
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Facts;

/** The latest sign-off of a record as texts and lines look at it. */
final readonly class SignOffSeen
{
    private const OPEN = 'waiting';

    /**
     * @param  int  $step  at hand, or the last one, from 0
     * @param  int  $steps  how many have been agreed to
     * @param  list<array{person: int, isYes: bool, comment: string}>  $said  what people said, in order
     * @param  list<int>  $waiting  ids of those who are being asked
     */
    public function __construct(
        public string $status,
        public string $why,
        public ?int $asker,
        public int $step,
        public int $steps,
        public array $said,
        public array $waiting,
    ) {
    }

    /** The same before it ended. */
    public function whileOpen(): self
    {
        return new self(
            status: self::OPEN, why: $this->why, asker: $this->asker, step: $this->step, steps: $this->steps, said: $this->said,
            waiting: $this->waiting,
        );
    }

    /** @return list<int> ids of those who said yes, or no */
    public function who(bool $isYes): array
    {
        $who = [];
        foreach ($this->said as $one) {
            if ($one['isYes'] === $isYes) {
                $who[] = $one['person'];
            }
        }

        return array_values(array_unique($who));
    }

    /** Whoever said the last word; null when nobody has said any. */
    public function decider(): ?int
    {
        return $this->said === [] ? null : $this->said[count($this->said) - 1]['person'];
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Time;

/** A clock that stands still: within one save it is the same moment throughout. */
final readonly class FixedClock implements Clock
{
    public function __construct(private \DateTimeImmutable $now)
    {
    }

    public function now(): \DateTimeImmutable
    {
        return $this->now;
    }
}

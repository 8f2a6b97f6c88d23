<?php

declare(strict_types=1);

namespace VividLedger\Rule\Timing;

use VividLedger\Condition\Condition;
use VividLedger\Facts\Awaited;

/** A timing that happens once, and waits for nothing. */
trait Plain
{
    public function hangsOn(): ?string
    {
        return null;
    }

    public function waitsFor(): ?string
    {
        return null;
    }

    public function becomes(): ?Condition
    {
        return null;
    }

    public function again(Occasion $occasion, \DateTimeImmutable $now): null
    {
        return null;
    }

    public function seconds(): ?int
    {
        return null;
    }

    public function isNeedless(Awaited $tasks, int $turn = 1): bool
    {
        return false;
    }

    public function repeats(): bool
    {
        return false;
    }

    public function isEndless(): bool
    {
        return false;
    }
}

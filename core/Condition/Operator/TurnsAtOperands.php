<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

/** An operator that says no of an empty value, and whose answer turns at what is written. */
trait TurnsAtOperands
{
    public function ofEmpty(): ?bool
    {
        return false;
    }

    public function turns(array $operands): array
    {
        return $operands;
    }

    public function isToldOfOthers(): bool
    {
        return true;
    }
}

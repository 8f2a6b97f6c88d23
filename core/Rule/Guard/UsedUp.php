<?php

declare(strict_types=1);

namespace VividLedger\Rule\Guard;

/** A guard that counts what was fired: it stays used until it is made ready again, and takes the conditions as they are. */
trait UsedUp
{
    public function wantsTurn(): bool
    {
        return false;
    }

    public function remembers(): bool
    {
        return true;
    }
}

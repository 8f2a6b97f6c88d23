<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\People\Who;

/** A trigger that may put all records of a person together, instead of looking at them one by one. */
interface Gathers
{
    /** @return ?Who whose records are put together; null when each is looked at by itself */
    public function per(): ?Who;

    /** Whether time is told by the clock of the person whose records they are. */
    public function isByOwnClock(): bool;
}

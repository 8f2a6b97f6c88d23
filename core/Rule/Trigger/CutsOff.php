<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Facts\Facts;
use VividLedger\Record\Change;

/** A trigger that judges at most so many records at a change, so that one save never takes for ever. */
interface CutsOff
{
    /** @return int how many records the change concerns, those that are left included */
    public function concerned(Change $change, Facts $facts, int $judged): int;
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\SignOff\Route;

/** A line that asks for a sign-off, which other lines can wait for. */
interface AsksSignOff extends Waitable
{
    public function route(): Route;

    /** Whether the record is locked while it waits. */
    public function locks(): bool;
}

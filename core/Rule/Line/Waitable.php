<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Record\WaitedSort;

/** A line that begins something others below it can wait for. */
interface Waitable
{
    public function waitedAs(): WaitedSort;

    /** @return list<string> ways in which that can end, of which a line can wait for one, as they read; none where it is but over */
    public function ends(): array;
}

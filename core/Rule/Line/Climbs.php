<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Rule\Ladder\Ladder;

/** A line that is done once for each rung of a ladder. */
interface Climbs
{
    public function ladder(): Ladder;
}

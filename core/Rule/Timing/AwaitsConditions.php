<?php

declare(strict_types=1);

namespace VividLedger\Rule\Timing;

use VividLedger\Shape\Context;
use VividLedger\Shape\Node;

/** A timing that waits for conditions, which stand in rows of their own below the line. */
interface AwaitsConditions extends Timing
{
    /** With its conditions, read into those rows; null when they are unfinished, and the problem is noted. */
    public function reading(Context $context, Node $node): ?self;
}

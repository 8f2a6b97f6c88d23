<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Rule\Performance\ActionContext;

/** What is done when the time of a line has come. */
interface Performed
{
    /** Does it, by telling the performance what is to happen; what cannot be done says so there. */
    public function perform(ActionContext $performance): void;
}

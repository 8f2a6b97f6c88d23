<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

/** An operator that says no where another says yes. */
interface Opposite extends Operator
{
    /** Name of the other. */
    public function of(): string;
}

<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

/** An operator that compares with a span of time from now. */
interface SpanOperator extends Operator
{
    public function ahead(): bool;
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\People\PersonExpression;

/** A line that finds somebody from the record. */
interface FindsPeople
{
    /** @return array<string, PersonExpression> by their place in the line, "tasks/1/to" */
    public function people(): array;
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\People\Who;

/** A line that finds somebody from the record. */
interface FindsPeople
{
    /** @return array<string, Who> by their place in the line, "tasks/1/to" */
    public function people(): array;
}

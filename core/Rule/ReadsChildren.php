<?php

declare(strict_types=1);

namespace VividLedger\Rule;

use VividLedger\Condition\ChildrenRead;

/** A trigger or a line that goes through the children of a record. */
interface ReadsChildren
{
    /** @return list<ChildrenRead> */
    public function childrenRead(): array;
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

/** A trigger that waits for a change of the record's own fields. */
interface WatchesFields
{
    public function fields(): ChangedFields;
}

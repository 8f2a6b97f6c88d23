<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Schema\Field;

/** A trigger that waits for a change of the record's own fields. */
interface WatchesFields
{
    /** @return ?list<string> names of the fields whose change it waits for; null for any */
    public function fields(): ?array;

    /** @return ?array{Field, string|int|bool} the value that its one field has to come to; null where any will do */
    public function arrival(): ?array;
}

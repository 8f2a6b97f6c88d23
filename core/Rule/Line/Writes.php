<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Schema\RecordType;

/** A line that writes fields, and can say which before it does. */
interface Writes
{
    /** @return list<Written> */
    public function writes(RecordType $own): array;

    /** Name of the record type it makes a record of; null when it makes none. */
    public function makes(): ?string;
}

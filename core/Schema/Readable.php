<?php

declare(strict_types=1);

namespace VividLedger\Schema;

/** What a condition can look at: a field at the end of a path, or a number made of many records. */
interface Readable
{
    /** The kind of value it gives, as a field of that kind. */
    public function field(): Field;

    public function label(): string;
}

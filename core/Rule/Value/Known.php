<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

/** A value that is the same for every record, and known before the rule fires. */
interface Known
{
    public function known(): string|int|bool|null;
}

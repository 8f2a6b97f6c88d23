<?php

declare(strict_types=1);

namespace VividLedger\Rule\Guard;

use Closure;
use VividLedger\Facts\GuardState;
use VividLedger\Record\Record;

/** A guard that looks at nothing but the change at hand. */
trait Forgetful
{
    public function remembers(): bool
    {
        return false;
    }

    public function holdsBack(GuardState $state, Record $record, \DateTimeImmutable $now, Closure $isUsed): bool
    {
        return false;
    }

    public function key(Record $record, string $occasion, GuardState $state): string
    {
        return $occasion;
    }

    public function isForGood(): bool
    {
        return false;
    }
}

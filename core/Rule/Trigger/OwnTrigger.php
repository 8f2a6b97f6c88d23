<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Facts\Facts;
use VividLedger\Record\Change;

/** A trigger at the record itself. */
abstract readonly class OwnTrigger implements Trigger
{
    public function __construct(protected string $type)
    {
    }

    public function isOwn(): bool
    {
        return true;
    }

    public function subjects(Change $change, Facts $facts): ?array
    {
        return null;
    }

    public function asksNoMore(): bool
    {
        return true;
    }

    public function occasionOf(Change $change, Facts $facts): ?string
    {
        return null;
    }

    public function wanted(): string
    {
        return static::label();
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Guard;

use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;

/** When the conditions hold after the change and did not hold before it; a new record held nothing before. */
final readonly class BecomesTrue implements RepeatGuard
{
    public static function kind(): string
    {
        return 'becomes_true';
    }

    public static function label(RecordType $type): string
    {
        return 'when the conditions become true';
    }

    public function wantsTurn(): bool
    {
        return true;
    }

    public function remembers(): bool
    {
        return false;
    }

    public function key(Record $after): string
    {
        return "version:{$after->version}";
    }
}

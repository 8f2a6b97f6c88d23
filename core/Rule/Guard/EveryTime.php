<?php

declare(strict_types=1);

namespace VividLedger\Rule\Guard;

use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;

/** At every change that the trigger accepts and the conditions allow. */
final readonly class EveryTime implements RepeatGuard
{
    public static function kind(): string
    {
        return 'every_time';
    }

    public static function label(RecordType $type): string
    {
        return 'every time';
    }

    public function wantsTurn(): bool
    {
        return false;
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

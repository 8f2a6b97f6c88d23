<?php

declare(strict_types=1);

namespace VividLedger\Rule\Guard;

use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;

/** Once in the life of a record, whichever page of the rule it was. */
final readonly class OncePerRecord implements RepeatGuard
{
    public static function kind(): string
    {
        return 'once_per_record';
    }

    public static function label(RecordType $type): string
    {
        return 'once per '.$type->inSentence();
    }

    public function wantsTurn(): bool
    {
        return false;
    }

    public function remembers(): bool
    {
        return true;
    }

    public function key(Record $after): string
    {
        return 'once';
    }
}

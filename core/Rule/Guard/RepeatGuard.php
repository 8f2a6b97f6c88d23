<?php

declare(strict_types=1);

namespace VividLedger\Rule\Guard;

use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;

/**
 * How often a rule may fire for one record. A firing uses up a key; the key is unique for rule and record, so the same
 * firing can never happen twice, whatever crashes or is tried again.
 */
interface RepeatGuard
{
    public static function kind(): string;

    /** As offered and as read aloud: "once per ticket". */
    public static function label(RecordType $type): string;

    /** Whether it asks that the conditions did not hold before the change. */
    public function wantsTurn(): bool;

    /** Whether a key once used stays used, so that it has to be looked up before firing. */
    public function remembers(): bool;

    public function key(Record $after): string;
}

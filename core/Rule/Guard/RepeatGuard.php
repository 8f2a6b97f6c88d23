<?php

declare(strict_types=1);

namespace VividLedger\Rule\Guard;

use Closure;
use VividLedger\Facts\GuardState;
use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/**
 * How often a rule may fire for one record. A firing uses up a key; the key is unique for rule and record, so the same
 * firing can never happen twice, whatever crashes or is tried again.
 */
interface RepeatGuard
{
    public static function kind(): string;

    /** How it is written, printed and said. */
    public static function shape(): Shape;

    /** As offered: "once per ticket". */
    public static function label(RecordType $type): string;

    /** Reads it from a rule file and words it; null when unfinished. */
    public static function read(Context $context, Node $node): ?self;

    /** As read aloud: "at most once in 3 days". */
    public function wording(): string;

    /** Whether it asks that the conditions did not hold before the change. */
    public function wantsTurn(): bool;

    /** Whether what was used stays used, so that it has to be looked up before firing. */
    public function remembers(): bool;

    /** Whether one firing for a record uses it up for good, whatever the record becomes. */
    public function isForGood(): bool;

    /** @param  Closure(string): bool  $isUsed  whether a key was used */
    public function holdsBack(GuardState $state, Record $record, \DateTimeImmutable $now, Closure $isUsed): bool;

    /** @param  string  $occasion  names the change among all changes */
    public function key(Record $record, string $occasion, GuardState $state): string;
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Facts\Facts;
use VividLedger\Record\Change;
use VividLedger\Record\EventKind;

/** A trigger that time sets off: a sweep looks for the records, and tells the engine of each as an event. */
abstract readonly class Swept extends OwnTrigger
{
    /** Key of the event that a rehearsal asks about when the moment it is played at is not the one. */
    public const MISSED = 'missed';

    abstract public static function event(): EventKind;

    public function watch(): Watch
    {
        return new Watch($this->type, events: [static::event()]);
    }

    public function accepts(Change $change, Facts $facts): bool
    {
        return $change->event?->kind === static::event() && $change->event->key !== self::MISSED;
    }

    public function asksNoMore(): bool
    {
        return false;
    }

    /**
     * When it will be set off on a record, as things stand.
     *
     * @return list<array{\DateTimeImmutable, string}> moment and occasion
     */
    abstract public function moments(Ahead $ahead): array;

    /** Why it is not set off at the one moment that lies ahead; null when it is, or when nobody can say. */
    public function missed(Ahead $ahead): ?string
    {
        return null;
    }

    public function opening(Proposal $proposal): Opening
    {
        return $proposal->opening(OpeningKind::Time);
    }
}

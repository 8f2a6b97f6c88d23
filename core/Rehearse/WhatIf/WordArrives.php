<?php

declare(strict_types=1);

namespace VividLedger\Rehearse\WhatIf;

use VividLedger\Record\Display;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Rehearse\Play;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** A reply or a comment arrives. */
final readonly class WordArrives implements WhatIf
{
    public function __construct(private \DateTimeImmutable $at, private EventKind $event, private string $text, private string $from = '')
    {
    }

    public static function kind(): string
    {
        return 'word';
    }

    public function at(): \DateTimeImmutable
    {
        return $this->at;
    }

    public function prepare(Play $play): void
    {
    }

    public function apply(Play $play, int $record, RecordType $type, ?int $actor): void
    {
        $now = $play->paper->record($type->name, $record);
        if ($now !== null) {
            $event = new Event($this->event, "{$this->event->value}:".count($play->entries), $this->text, from: $this->from);
            $play->recordEvent($now, $event, $actor, true);
        }
    }

    public function said(RecordType $type, Display $display): string
    {
        if ($this->event !== EventKind::Reply) {
            return Words::say('the {record} {event}', record: Words::within($type->label), event: $this->event->label());
        }

        return Words::say('a reply arrives{from}', from: $this->from === '' ? '' : Words::say(' from {from}', from: $this->from));
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rehearse\WhatIf;

use VividLedger\Record\Display;
use VividLedger\Rehearse\Play;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** Somebody is absent for a time, so that others stand in. */
final readonly class SomebodyAway implements WhatIf
{
    public function __construct(
        private int $person,
        private string $name,
        private \DateTimeImmutable $from,
        private \DateTimeImmutable $until,
    ) {
    }

    public static function kind(): string
    {
        return 'away';
    }

    public function at(): null
    {
        return null;
    }

    public function prepare(Play $play): void
    {
        $play->paper->away($this->person, $this->from, $this->until);
    }

    public function apply(Play $play, int $record, RecordType $type, ?int $actor): void
    {
    }

    public function said(RecordType $type, Display $display): string
    {
        return Words::say('{name} is absent', name: $this->name);
    }
}

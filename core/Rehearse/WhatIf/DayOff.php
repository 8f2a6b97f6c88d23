<?php

declare(strict_types=1);

namespace VividLedger\Rehearse\WhatIf;

use VividLedger\Record\Display;
use VividLedger\Rehearse\Play;
use VividLedger\Schema\RecordType;

/** A day on which nobody works. */
final readonly class DayOff implements WhatIf
{
    /** @param  string  $day  "2026-12-25" */
    public function __construct(private string $day)
    {
    }

    public static function kind(): string
    {
        return 'holiday';
    }

    public function at(): null
    {
        return null;
    }

    public function prepare(Play $play): void
    {
        $play->paper->holiday($this->day);
    }

    public function apply(Play $play, int $record, RecordType $type, ?int $actor): void
    {
    }

    public function said(RecordType $type, Display $display): string
    {
        return 'a holiday';
    }
}

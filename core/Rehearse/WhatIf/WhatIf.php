<?php

declare(strict_types=1);

namespace VividLedger\Rehearse\WhatIf;

use VividLedger\Record\Display;
use VividLedger\Rehearse\Play;
use VividLedger\Schema\RecordType;

/** Something supposed in a rehearsal. Each kind is one file with its meaning and its wording. */
interface WhatIf
{
    public static function kind(): string;

    /** @return ?\DateTimeImmutable when it happens; null for what holds all the time, or by itself */
    public function at(): ?\DateTimeImmutable;

    /** Before anything happens: lays out what holds from the start. */
    public function prepare(Play $play): void;

    /** Its moment has come. */
    public function apply(Play $play, int $record, RecordType $type, ?int $actor): void;

    /** As a chip says it: "the contact replies". */
    public function said(RecordType $type, Display $display): string;
}

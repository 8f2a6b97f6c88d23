<?php

declare(strict_types=1);

namespace VividLedger\Rehearse\WhatIf;

use VividLedger\Record\Display;
use VividLedger\Rehearse\Play;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** A call of the rehearsal fails for good. Others are answered with something made up. */
final readonly class CallFails implements WhatIf
{
    /** @param  int  $call  the how-manieth of the rehearsal, from 1 */
    public function __construct(private int $call)
    {
    }

    public static function kind(): string
    {
        return 'call';
    }

    public function at(): ?\DateTimeImmutable
    {
        return null;
    }

    public function prepare(Play $play): void
    {
        $play->paper->runs->failing[] = $this->call;
    }

    public function apply(Play $play, int $record, RecordType $type, ?int $actor): void
    {
    }

    public function said(RecordType $type, Display $display): string
    {
        return Words::say('call {call} fails', call: $this->call);
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rehearse\WhatIf;

use VividLedger\Record\Display;
use VividLedger\Rehearse\Play;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** Whoever has a slip of the rehearsal answers it. Slips that nobody answers run their course. */
final readonly class SlipReturned implements WhatIf
{
    /**
     * @param  int  $slip  the how-manieth of the rehearsal, from 1
     * @param  array<array-key, mixed>  $answers  by the place of the question, from 0
     */
    public function __construct(private \DateTimeImmutable $at, private int $slip, private array $answers)
    {
    }

    public static function kind(): string
    {
        return 'slip';
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
        $one = $play->paper->runs->slips->all[$this->slip - 1] ?? null;
        if ($one !== null) {
            $play->post->answer($one, $this->answers, null);
        }
    }

    public function said(RecordType $type, Display $display): string
    {
        return Words::say('slip {slip} is answered', slip: $this->slip);
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rehearse\WhatIf;

use VividLedger\Record\Display;
use VividLedger\Rehearse\Play;
use VividLedger\Schema\RecordType;
use VividLedger\SignOff\Answer;
use VividLedger\Words\Words;

/** Whoever is asked for a sign-off of the rehearsal answers. Sign-offs that nobody answers run their course. */
final readonly class SignOffAnswered implements WhatIf
{
    /** @param  int  $signOff  the how-manieth of the rehearsal, from 1 */
    public function __construct(private \DateTimeImmutable $at, private int $signOff, private Answer $answer, private string $comment)
    {
    }

    public static function kind(): string
    {
        return 'sign_off';
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
        $one = $play->paper->runs->signOffs->all[$this->signOff - 1] ?? null;
        if ($one !== null) {
            $play->desk->answer($one, $this->answer, $this->comment === '' ? 'Supposed' : $this->comment);
        }
    }

    public function said(RecordType $type, Display $display): string
    {
        return Words::say(
            'sign-off {signOff} is {answer}',
            signOff: $this->signOff,
            answer: $this->answer === Answer::Yes ? Words::say('agreed') : Words::say('declined'),
        );
    }
}

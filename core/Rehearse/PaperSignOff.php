<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Facts\Awaited;
use VividLedger\Rule\Performance\SignOffAsked;
use VividLedger\Rule\Rule;
use VividLedger\SignOff\SignOff;

/** A sign-off that was asked for on paper. */
final class PaperSignOff
{
    public SignOff $signOff;

    /**
     * @param  int  $number  among the sign-offs of the rehearsal, from 1
     * @param  int  $entry  number on paper of what asked for it
     * @param  ?int  $run  whose line asked for it
     */
    public function __construct(
        public readonly int $number,
        public readonly SignOffAsked $asked,
        public readonly Rule $rule,
        public readonly int $entry,
        public readonly ?int $run,
    ) {
        $this->signOff = $asked->moved->signOff;
    }

    public function isAbout(string $type, int $id): bool
    {
        return $this->asked->record->type === $type && $this->asked->record->id === $id;
    }

    public function awaited(): Awaited
    {
        return SignOffAsked::awaits($this->signOff);
    }
}

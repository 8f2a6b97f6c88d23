<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Facts\Awaited;
use VividLedger\Rule\Performance\CallMade;
use VividLedger\Rule\Rule;

/** A call that was made on paper. */
final class PaperCall
{
    public string $ended = '';

    public ?\DateTimeImmutable $endedAt = null;

    /**
     * @param  int  $number  among the calls of the rehearsal, from 1
     * @param  int  $entry  number on paper of what made it
     * @param  ?int  $run  whose line made it
     */
    public function __construct(
        public readonly int $number,
        public readonly CallMade $made,
        public readonly Rule $rule,
        public readonly int $entry,
        public readonly ?int $run,
        public readonly \DateTimeImmutable $at,
    ) {
    }

    public function awaited(): Awaited
    {
        return CallMade::awaits($this->at, $this->endedAt, $this->ended);
    }
}

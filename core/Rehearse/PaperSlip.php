<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Rule\Performance\SlipSent;
use VividLedger\Rule\Rule;
use VividLedger\Slip\ReplySlip;

/** A slip that was sent on paper. */
final class PaperSlip
{
    public ReplySlip $slip;

    /** @var list<array{asked: string, said: string}> what was answered, in words */
    public array $answers = [];

    /**
     * @param  int  $number  among the slips of the rehearsal, from 1
     * @param  int  $entry  number on paper of what sent it
     * @param  ?int  $run  whose line sent it
     */
    public function __construct(
        public readonly int $number,
        public readonly SlipSent $sent,
        public readonly Rule $rule,
        public readonly int $entry,
        public readonly ?int $run,
    ) {
        $this->slip = $sent->moved->slip;
    }

    public function isAbout(string $type, int $id): bool
    {
        return $this->sent->record->type === $type && $this->sent->record->id === $id;
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

/** Something that happened on the way of a sign-off, as data. */
final readonly class SignOffEvent
{
    /**
     * @param  int  $step  from 0
     * @param  ?int  $person  id of the person it is about
     * @param  ?int  $other  id of whoever was asked before them, when it was passed on, or for whom they decided
     * @param  ?SignOffStatus  $status  with which it ended
     */
    public function __construct(
        public SignOffEventKind $kind,
        public int $step,
        public ?int $person = null,
        public ?int $other = null,
        public ?Answer $answer = null,
        public string $comment = '',
        public ?SignOffStatus $status = null,
    ) {
    }

    /** Whether somebody agreed, and not the route in their place. */
    public function isYes(): bool
    {
        return $this->kind === SignOffEventKind::Said && $this->answer === Answer::Yes;
    }
}

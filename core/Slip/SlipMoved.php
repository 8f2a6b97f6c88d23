<?php

declare(strict_types=1);

namespace VividLedger\Slip;

/** A slip after something was done to it, and what happened. */
final readonly class SlipMoved
{
    /**
     * @param  list<SlipEvent>  $events  in order; none when nothing happened
     * @param  bool  $isOvertaken  somebody else has ended it meanwhile; the slip here is not what it has become
     */
    public function __construct(public ReplySlip $slip, public array $events, public bool $isOvertaken = false)
    {
    }
}

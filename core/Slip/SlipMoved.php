<?php

declare(strict_types=1);

namespace VividLedger\Slip;

/** A slip after something was done to it, and what happened. */
final readonly class SlipMoved
{
    /** @param  list<SlipEvent>  $events  in order; none when nothing happened */
    public function __construct(public ReplySlip $slip, public array $events)
    {
    }
}

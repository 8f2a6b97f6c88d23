<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

/** A sign-off after something was done to it, and what happened. */
final readonly class Moved
{
    /** @param  list<SignOffEvent>  $events  in order; none when nothing happened */
    public function __construct(public SignOff $signOff, public array $events)
    {
    }
}

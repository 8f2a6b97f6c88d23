<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

/** How far a sign-off has come. It waits, and then ends once. */
enum SignOffStatus: string
{
    case Waiting = 'waiting';
    case Agreed = 'agreed';
    case Declined = 'declined';
    case Withdrawn = 'withdrawn';
    case TimedOut = 'timed_out';
    case Stopped = 'stopped';   // nobody is left who could decide
}

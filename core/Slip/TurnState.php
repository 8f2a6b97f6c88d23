<?php

declare(strict_types=1);

namespace VividLedger\Slip;

/** What became of somebody's turn to answer. */
enum TurnState: string
{
    case Waiting = 'waiting';
    case Answered = 'answered';
    case PassedOn = 'passed_on';    // somebody else is asked instead
    case Unreached = 'unreached';   // there was no address to write to
    case Over = 'over';             // the slip has ended otherwise
}

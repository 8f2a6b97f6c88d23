<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

/** What has become of somebody's part in a sign-off. */
enum SeatState: string
{
    case Waiting = 'waiting';
    case Yes = 'yes';
    case No = 'no';
    case PassedOn = 'passed_on';   // somebody else decides instead
    case Over = 'over';            // the step, or all of it, ended without them
}

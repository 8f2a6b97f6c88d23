<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Words\Words;

/** How far a sign-off has come. It waits, and then ends once. */
enum SignOffStatus: string
{
    case Waiting = 'waiting';
    case Agreed = 'agreed';
    case Declined = 'declined';
    case Withdrawn = 'withdrawn';
    case TimedOut = 'timed_out';
    case Stopped = 'stopped';   // nobody is left who could decide

    /** As said of a sign-off: "agreed". */
    public function said(): string
    {
        return match ($this) {
            self::Waiting => Words::say('waiting'),
            self::Agreed => Words::say('agreed'),
            self::Declined => Words::say('declined'),
            self::Withdrawn => Words::say('withdrawn'),
            self::TimedOut => Words::say('timed out'),
            self::Stopped => Words::say('left undecided'),
        };
    }

    /** As the text of a rule has it, which is English whoever reads. */
    public function word(): string
    {
        return Words::toKeep($this->said(...));
    }
}

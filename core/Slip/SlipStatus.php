<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Words\Words;

/** How far a slip has come. */
enum SlipStatus: string
{
    case Waiting = 'waiting';
    case Answered = 'answered';
    case RunOut = 'run_out';        // nobody answered, and nobody is left to ask
    case Withdrawn = 'withdrawn';

    public function said(): string
    {
        return match ($this) {
            self::Waiting => Words::say('waiting'),
            self::Answered => Words::say('answered'),
            self::RunOut => Words::say('left without an answer'),
            self::Withdrawn => Words::say('withdrawn'),
        };
    }
}

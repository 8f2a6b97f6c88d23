<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Words\Words;

/** Something that cannot be done to a slip any more. Nothing has changed. */
final class NotTaken extends \RuntimeException
{
    public static function ended(SlipStatus $status): self
    {
        return new self(match ($status) {
            SlipStatus::Answered => Words::say('This has been answered already. Thank you.'),
            SlipStatus::Withdrawn => Words::say('This was withdrawn. You need not answer any more.'),
            default => Words::say('The time to answer has run out.'),
        });
    }

    public static function nobodyNext(): self
    {
        return new self(Words::say('Nobody is left on the list to pass it on to.'));
    }
}

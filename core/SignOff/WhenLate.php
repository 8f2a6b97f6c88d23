<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

/** What becomes of somebody's part when their time has run out. */
enum WhenLate: string
{
    case AskAgain = 'again';    // they are asked once more, and then it counts as a no
    case NextUp = 'up';         // their manager is asked instead
    case Deputy = 'deputy';     // their deputy is
    case PassOn = 'pass_on';    // a certain person is
    case Agree = 'agree';       // it counts as a yes
    case Decline = 'decline';   // it counts as a no
    case Stop = 'stop';         // the whole sign-off times out

    /** As it reads behind "and then": "ask the next person up". */
    public function said(): string
    {
        return match ($this) {
            self::AskAgain => 'ask them again once and count it as a no after that',
            self::NextUp => 'ask the next person up',
            self::Deputy => 'ask their deputy',
            self::PassOn => 'pass it on',
            self::Agree => 'count it as a yes',
            self::Decline => 'count it as a no',
            self::Stop => 'let it time out',
        };
    }
}

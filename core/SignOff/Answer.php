<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

/** What somebody who was asked says. */
enum Answer: string
{
    case Yes = 'yes';
    case No = 'no';

    public function state(): SeatState
    {
        return $this === self::Yes ? SeatState::Yes : SeatState::No;
    }
}

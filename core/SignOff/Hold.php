<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

/** What becomes of the record while a sign-off waits. */
enum Hold: string
{
    case Nothing = 'nothing';
    case Locked = 'locked';      // nobody changes it, and rules that come meanwhile are past
    case CatchUp = 'catch_up';   // nobody changes it, and rules that come meanwhile look again afterwards

    /** As it reads behind the steps. */
    public function said(): string
    {
        return match ($this) {
            self::Nothing => 'the record stays open',
            self::Locked => 'the record is locked meanwhile',
            self::CatchUp => 'the record is locked meanwhile and rules look again afterwards',
        };
    }
}

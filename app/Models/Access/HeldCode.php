<?php

declare(strict_types=1);

namespace App\Models\Access;

/** Why a pencilled line is held. */
enum HeldCode: string
{
    case ByHand = 'by_hand';
    case RulePaused = 'rule_paused';
    case Locked = 'locked';            // its record is locked while a sign-off waits
}

<?php

declare(strict_types=1);

namespace App\Models;

/** Why a pencilled line is held. */
enum HeldCode: string
{
    case ByHand = 'by_hand';
    case RulePaused = 'rule_paused';
}

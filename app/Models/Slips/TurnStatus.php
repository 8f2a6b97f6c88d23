<?php

declare(strict_types=1);

namespace App\Models\Slips;

/** How far a turn of the house clock is. */
enum TurnStatus: string
{
    case Turning = 'turning';
    case Turned = 'turned';
}

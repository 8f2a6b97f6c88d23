<?php

declare(strict_types=1);

namespace App\Models\People;

/** How far an absence has come. */
enum AbsenceState: string
{
    case Ahead = 'ahead';
    case Begun = 'begun';
    case Over = 'over';
}

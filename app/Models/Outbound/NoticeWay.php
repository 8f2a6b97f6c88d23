<?php

declare(strict_types=1);

namespace App\Models\Outbound;

/** By which way somebody hears of it; the bell tells all of it anyhow. */
enum NoticeWay: string
{
    case Bell = 'bell';         // by the bell alone
    case Letter = 'letter';     // by a letter at once
    case Morning = 'morning';   // in one letter on the morning of a working day
}

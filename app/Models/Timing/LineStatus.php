<?php

declare(strict_types=1);

namespace App\Models\Timing;

/** What has become of a pencilled line. */
enum LineStatus: string
{
    case Pencilled = 'pencilled';
    case Held = 'held';
    case Inked = 'inked';
    case Struck = 'struck';
    case Late = 'late';
    case Failed = 'failed';

    /** Those that have not come to their end. */
    public const TO_COME = ['pencilled', 'held'];
}

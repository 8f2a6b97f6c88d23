<?php

declare(strict_types=1);

namespace App\Models\Timing;

/** Whether a rule is still at work on a record. */
enum RunStatus: string
{
    case InPlay = 'in_play';
    case Over = 'over';
}

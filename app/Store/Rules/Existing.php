<?php

declare(strict_types=1);

namespace App\Store\Rules;

/** What happens, when a rule is put in force, to the records that match already. */
enum Existing: string
{
    case Leave = 'leave';
    case Count = 'count';
    case Start = 'start';
}

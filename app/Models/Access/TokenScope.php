<?php

declare(strict_types=1);

namespace App\Models\Access;

use VividLedger\Words\Words;

/** How much of what its person may do a token may. */
enum TokenScope: string
{
    case Everything = '*';
    case Records = 'records';
    case Reading = 'reading';

    public function refusal(): string
    {
        return $this === self::Records ? Words::say('This token is for reading, and for work on records and tasks.')
            : Words::say('This token is for reading only.');
    }
}

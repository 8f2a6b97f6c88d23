<?php

declare(strict_types=1);

namespace App\Models\Import;

/** What became of one of many records. */
enum RowResult: string
{
    case Waiting = 'waiting';
    case Created = 'created';
    case Changed = 'changed';
    case Same = 'same';         // nothing was different
    case Refused = 'refused';
    case Undone = 'undone';
    case Kept = 'kept';         // wanted back, but somebody has changed it since
}

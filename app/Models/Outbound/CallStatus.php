<?php

declare(strict_types=1);

namespace App\Models\Outbound;

/** How far a call has come. */
enum CallStatus: string
{
    case Waiting = 'waiting';
    case Succeeded = 'succeeded';
    case Failed = 'failed';
}

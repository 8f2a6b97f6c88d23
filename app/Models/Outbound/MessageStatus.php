<?php

declare(strict_types=1);

namespace App\Models\Outbound;

/** How far a message is. */
enum MessageStatus: string
{
    case Waiting = 'waiting';
    case Delivered = 'delivered';
    case Failed = 'failed';
    case Cancelled = 'cancelled';
}

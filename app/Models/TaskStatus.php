<?php

declare(strict_types=1);

namespace App\Models;

/** How far a task is. */
enum TaskStatus: string
{
    case Open = 'open';
    case Done = 'done';
    case Cancelled = 'cancelled';
}

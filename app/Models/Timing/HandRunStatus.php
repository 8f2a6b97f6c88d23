<?php

declare(strict_types=1);

namespace App\Models\Timing;

/** How far a run by hand is. */
enum HandRunStatus: string
{
    case Waiting = 'waiting';
    case Running = 'running';
    case Done = 'done';

    /** Those with records left. */
    public const UNFINISHED = ['waiting', 'running'];
}

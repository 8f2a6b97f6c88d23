<?php

declare(strict_types=1);

namespace App\Models\Lists;

/** How far work on many records is. */
enum BulkStatus: string
{
    case Draft = 'draft';           // still being put together
    case Trying = 'trying';         // an import, gone through without saving anything
    case Tried = 'tried';
    case Waiting = 'waiting';
    case Running = 'running';
    case Stopped = 'stopped';       // by somebody; it can go on
    case Done = 'done';
    case Undoing = 'undoing';
    case Undone = 'undone';

    /** Those that workers go on with. */
    public const AT_WORK = ['trying', 'waiting', 'running', 'undoing'];
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

/** How pressing a task is. */
enum TaskPriority: string
{
    case Low = 'low';
    case Normal = 'normal';
    case High = 'high';
}

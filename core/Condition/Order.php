<?php

declare(strict_types=1);

namespace VividLedger\Condition;

/** How two values stand to each other. */
enum Order: string
{
    case Equal = '=';
    case Over = '>';
    case AtLeast = '>=';
    case Under = '<';
    case AtMost = '<=';
}

<?php

declare(strict_types=1);

namespace VividLedger\Proofread;

/** How much a remark matters. */
enum Level: string
{
    case Blocks = 'blocks';     // the rule cannot be put in force
    case Look = 'look';         // it should be looked at
    case Note = 'note';         // it is good to know
}

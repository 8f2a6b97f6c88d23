<?php

declare(strict_types=1);

namespace VividLedger\Schema;

/** What becomes of a record when one that it refers to is deleted. */
enum OnDelete: string
{
    /** The reference stays, and leads to what can be brought back. */
    case Keep = 'keep';

    /** The other one cannot be deleted. */
    case Refuse = 'refuse';

    /** It refers to nothing from then on. */
    case Clear = 'clear';

    /** It is deleted as well. */
    case Along = 'along';
}

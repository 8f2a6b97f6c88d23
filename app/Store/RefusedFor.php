<?php

declare(strict_types=1);

namespace App\Store;

/** Why something was refused; whatever carries it outside gives it its own sign. */
enum RefusedFor
{
    /** What was given does not do. */
    case Invalid;

    /** It cannot even be read. */
    case Unreadable;

    /** There is no such thing. */
    case Missing;

    /** Whoever asked may not. */
    case NotAllowed;

    /** It cannot be done as things stand. */
    case Conflict;

    /** Too much is asked at once. */
    case TooMany;

    /** Others are in the way just now. */
    case Busy;
}

<?php

declare(strict_types=1);

namespace App\Work\Operations;

/** The kinds of work in time that go on beside each other: trouble or slowness in one never keeps another waiting. */
enum Lane: string
{
    case Lines = 'lines';
    case Sweep = 'sweep';
    case Turn = 'turn';
    case Fetch = 'fetch';
    case Notices = 'notices';

    /** Seconds to rest when there was nothing to do. */
    public function rest(): float
    {
        return match ($this) {
            self::Lines, self::Turn => 0.3,
            self::Sweep => 3.0,
            self::Fetch, self::Notices => 10.0,
        };
    }
}

<?php

declare(strict_types=1);

namespace App\Work;

/** The kinds of work that go on beside each other: trouble or slowness in one never keeps another waiting. */
enum Lane: string
{
    case Lines = 'lines';
    case Sweep = 'sweep';
    case Turn = 'turn';
    case Letters = 'letters';
    case Proofs = 'proofs';
    case Runs = 'runs';

    /** Seconds to rest when there was nothing to do. */
    public function rest(): float
    {
        return match ($this) {
            self::Lines, self::Turn => 0.3,
            self::Sweep => 3.0,
            self::Proofs => 1.0,
            self::Letters, self::Runs => 0.5,
        };
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Schema\Path;

/** From a fixed person, or the person in a field, so many managers up. */
final readonly class Route
{
    public function __construct(
        public int|Path $start,
        public int $levels = 0,
    ) {
    }
}

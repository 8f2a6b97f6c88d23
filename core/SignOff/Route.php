<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

/** Who has to sign off, step after step. */
final readonly class Route
{
    /** @param  non-empty-list<RouteStep>  $steps */
    public function __construct(public array $steps)
    {
    }
}

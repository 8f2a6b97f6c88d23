<?php

declare(strict_types=1);

namespace VividLedger\Time;

/** The only source of "now" in the core. */
interface Clock
{
    /** The present instant, in UTC. */
    public function now(): \DateTimeImmutable;
}

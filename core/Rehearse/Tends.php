<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use Closure;

/** Something of a rehearsal that goes on by itself as time passes. */
interface Tends
{
    /** @return ?array{\DateTimeImmutable, Closure(): void} when something falls due next, and what that does; null for nothing */
    public function next(): ?array;

    /** Tells of those that the rule itself has ended since this was asked last. */
    public function tellWithdrawn(): void;
}

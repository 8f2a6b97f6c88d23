<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

/** A kind of line that is rarely the end of it: a new one brings further lines along, in which what follows can be written. */
interface BringsLines extends Line
{
    /**
     * @param  string  $name  by which they wait for it
     * @return list<array<string, mixed>> as a rule file writes them
     */
    public static function brings(string $name): array;
}

<?php

declare(strict_types=1);

namespace VividLedger\Facts;

/** What may be asked about sign-offs. */
interface SignOffFacts
{
    /** What locks a record; null when nothing does. */
    public function lockOn(string $type, int $id): ?Lock;

    /**
     * The latest sign-off that was asked for on a record; null when none was.
     *
     * @param  string  $called  the name of the line that asked for it; empty for whichever
     */
    public function signOffOn(string $type, int $id, string $called = ''): ?SignOffSeen;
}

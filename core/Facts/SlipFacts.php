<?php

declare(strict_types=1);

namespace VividLedger\Facts;

/** What may be asked about slips, and about those they can be passed on to. */
interface SlipFacts
{
    /** The latest slip about a record; null when none was sent. */
    public function slipOn(string $type, int $id): ?SlipSeen;

    /**
     * The first in order of some records that has room.
     *
     * @param  list<int>  $except  ids of those who were asked already
     */
    public function candidates(Candidates $candidates, array $except): ?int;
}

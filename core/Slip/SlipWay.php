<?php

declare(strict_types=1);

namespace VividLedger\Slip;

/** What a clerk of slips leaves to others: the record is set to the next in the list, and whoever is reached then is told. */
interface SlipWay
{
    /**
     * @param  int  $candidate  id of the record or the person that the list leads to
     * @return ?Reach null when a rule answered that change by ending the slip
     */
    public function turnTo(int $candidate): ?Reach;
}

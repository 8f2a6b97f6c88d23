<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Facts\Quiet;
use VividLedger\Time\Due;

/** A trigger that comes when something has been silent for so long. */
interface WaitsForSilence
{
    public function quiet(): Quiet;

    /** How long it has to last. */
    public function lasting(): Due;

    /**
     * Names the silence among all of the record.
     *
     * @param  int  $entry  number of the last entry before it fell quiet
     */
    public function occasion(int $entry): string;
}

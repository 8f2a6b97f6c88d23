<?php

declare(strict_types=1);

namespace App\Store\Records;

use VividLedger\Engine\Decision;
use VividLedger\Record\Record;

/** What a save came to. */
final readonly class Saved
{
    /**
     * @param  ?int  $entryId  the entry of the save itself; null when nothing had changed
     * @param  array<int, int>  $stepEntries  the entry of each step, by its place in the decision
     */
    public function __construct(
        public Record $record,
        public Decision $decision,
        public ?int $entryId,
        public array $stepEntries = [],
    ) {
    }
}

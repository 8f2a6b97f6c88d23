<?php

declare(strict_types=1);

namespace App\Store;

use VividLedger\Engine\Decision;
use VividLedger\Record\Change;
use VividLedger\Record\EventKind;

/** A change together with what followed from it, to be written to the ledger. */
final readonly class Outcome
{
    /**
     * @param  string  $kind  of the entry for the change itself
     * @param  array<string, mixed>  $data  what that entry keeps besides the changed fields
     * @param  ?int  $taskId  the task the change is about
     * @param  ?int  $causeId  the entry that led to the change
     */
    public function __construct(
        public Change $change,
        public Decision $decision,
        public Actor $actor,
        public string $kind,
        public array $data = [],
        public ?int $taskId = null,
        public ?int $causeId = null,
        public ?int $ruleId = null,
    ) {
    }

    /** Whether the change stands in the ledger by itself; what time brings about stands there as what followed from it. */
    public function hasOwnEntry(): bool
    {
        $kind = $this->change->event?->kind;

        return $kind === null || ! ($kind->comesOnce() || $kind === EventKind::LineDue);
    }
}

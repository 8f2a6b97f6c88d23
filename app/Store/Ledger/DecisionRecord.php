<?php

declare(strict_types=1);

namespace App\Store\Ledger;

use App\Store\Actor;
use VividLedger\Engine\Decision;
use VividLedger\Record\Change;

/** A change together with what followed from it, to be written to the ledger. */
final readonly class DecisionRecord
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

    /** Whether the change stands in the ledger by itself: what comes again does so already. */
    public function hasOwnEntry(): bool
    {
        return $this->change->againFor === null && ($this->change->event === null || $this->change->event->kind->hasOwnEntry());
    }
}

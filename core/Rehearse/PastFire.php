<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

/** A firing that would have been. */
final readonly class PastFire
{
    /** @param  int  $entry  of the change that would have set the rule off; the last before it, when time would have */
    public function __construct(
        public int $record,
        public int $entry,
        public string $at,
    ) {
    }

    public function key(): string
    {
        return "{$this->record}:{$this->entry}:{$this->at}";
    }
}

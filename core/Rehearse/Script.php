<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Record\Record;
use VividLedger\Rehearse\WhatIf\WhatIf;
use VividLedger\Rule\Trigger\Opening;

/** What is rehearsed: a record, what happens first, and what is supposed besides. */
final readonly class Script
{
    /** @param  list<WhatIf>  $whatIfs */
    public function __construct(
        public Record $record,
        public Opening $opening,
        public array $whatIfs = [],
        public ?int $actor = null,
    ) {
    }

    public function withoutWhatIfs(): self
    {
        return new self($this->record, $this->opening, [], $this->actor);
    }
}

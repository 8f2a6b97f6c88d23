<?php

declare(strict_types=1);

namespace VividLedger\Explain;

use VividLedger\Record\Record;
use VividLedger\Rule\Rule;

/** What the ledger keeps of something that happened: the kind of entry, the record it stands on, the rule, and what it tells. */
final readonly class Told
{
    /** @param  array<string, mixed>  $data */
    public function __construct(
        public string $kind,
        public Record $record,
        public ?Rule $rule,
        public array $data,
    ) {
    }
}

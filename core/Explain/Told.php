<?php

declare(strict_types=1);

namespace VividLedger\Explain;

use VividLedger\Record\Record;
use VividLedger\Rule\Rule;

/** What the ledger keeps of something that happened: the kind of entry, the record it stands on, the rule, and what it tells. */
final readonly class Told
{
    /**
     * @param  array<string, mixed>  $data  ids, codes, values and moments as ISO 8601; words are made of it when it is read
     * @param  list<FieldDifference>  $changes  what it changed of its record, which the history of fields keeps
     */
    public function __construct(
        public string $kind,
        public Record $record,
        public ?Rule $rule,
        public array $data,
        public array $changes = [],
    ) {
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Record\EventKind;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;

/** Time sets a rule off on a record. */
final readonly class Start
{
    /** @param  string  $occasion  names this one start among all of the record */
    public function __construct(
        public \DateTimeImmutable $at,
        public Rule $rule,
        public Record $record,
        public EventKind $kind,
        public string $occasion,
        public string $said,
    ) {
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use Closure;
use VividLedger\Facts\Facts;
use VividLedger\Facts\Quiet;
use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;

/** A record and the time that lies before it, for a trigger that foretells when it will be set off. */
final readonly class Ahead
{
    /** @param  ?Closure(Quiet): array{?\DateTimeImmutable, int}  $silence  since when, and the entry it is counted from */
    public function __construct(
        public RecordType $type,
        public Record $record,
        public Facts $facts,
        public \DateTimeZone $zone,
        public \DateTimeImmutable $from,
        public \DateTimeImmutable $until,
        private ?Closure $silence = null,
    ) {
    }

    /** @return array{?\DateTimeImmutable, int} since when it is silent, and the entry it is counted from */
    public function silence(Quiet $quiet): array
    {
        return $this->silence === null ? [null, 0] : ($this->silence)($quiet);
    }
}

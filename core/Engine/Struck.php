<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Facts\Run;
use VividLedger\Record\Record;

/** Lines of a run that will not happen any more. */
final readonly class Struck implements Step
{
    /** @param  ?list<int>  $lines  ids of the lines; null for all the run still has, which ends it */
    public function __construct(
        public Run $run,
        public Record $record,
        public ?array $lines,
        public StruckCode $code,
        public string $because,
        public ?int $parent,
    ) {
    }

    public function parent(): ?int
    {
        return $this->parent;
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Facts\OpenTask;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;

/** A task that has lost its point: nobody need do it any more. */
final readonly class Lapsed implements Step
{
    /** @param  string  $because  what holds that makes it lapse */
    public function __construct(
        public OpenTask $task,
        public Rule $rule,
        public Record $record,
        public string $because,
        public ?int $parent,
    ) {
    }

    public function parent(): ?int
    {
        return $this->parent;
    }
}

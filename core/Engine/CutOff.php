<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Record\Record;
use VividLedger\Rule\Rule;

/** A rule that one change concerns on more records than are judged at once: the rest of them was left. */
final readonly class CutOff implements Step
{
    /**
     * @param  Record  $record  the one whose change it was
     * @param  ?int  $parent  place in the decision of the step that caused the change
     * @param  int  $done  on how many records it was judged
     * @param  int  $of  how many there are
     */
    public function __construct(
        public Rule $rule,
        public Record $record,
        public ?int $parent,
        public int $done,
        public int $of,
    ) {
    }

    public function parent(): ?int
    {
        return $this->parent;
    }
}

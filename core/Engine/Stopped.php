<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Record\Record;
use VividLedger\Rule\Rule;

/** A chain of rules that was not followed further: a rule came round again, or the chain grew too long. */
final readonly class Stopped implements Step
{
    /**
     * @param  list<Rule>  $chain  the rules in the order they set each other off, the one that was not let fire last
     * @param  ?int  $parent  place in the decision of the last step of the chain
     * @param  bool  $cameRound  true when the rule had fired in this chain before, false when the chain was too long
     * @param  Record  $record  the one it would have fired on
     */
    public function __construct(
        public array $chain,
        public ?int $parent,
        public bool $cameRound,
        public Record $record,
    ) {
    }

    public function parent(): ?int
    {
        return $this->parent;
    }
}

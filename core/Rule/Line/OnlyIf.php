<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Condition\ChildrenRead;
use VividLedger\Condition\Condition;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\ReadsChildren;
use VividLedger\Schema\RecordType;

/** A line with a condition of its own, judged when the line's turn comes and so on what the lines above have done. */
final readonly class OnlyIf implements Performed, ReadsChildren, Writes
{
    public function __construct(
        public Line $line,
        public Condition $condition,
        private string $said,
    ) {
    }

    public function writes(RecordType $own): array
    {
        return $this->line instanceof Writes ? $this->line->writes($own) : [];
    }

    public function makes(): ?string
    {
        return $this->line instanceof Writes ? $this->line->makes() : null;
    }

    public function childrenRead(): array
    {
        return [...ChildrenRead::in($this->condition), ...($this->line instanceof ReadsChildren ? $this->line->childrenRead() : [])];
    }

    public function perform(ActionContext $performance): void
    {
        $finding = $this->condition->explain($performance->view(), $performance->display);
        if ($finding->held) {
            $this->line->perform($performance);
        } else {
            $performance->skipped($this->said, 'its own condition did not hold: '.$finding->miss());
        }
    }
}

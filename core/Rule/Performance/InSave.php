<?php

declare(strict_types=1);

namespace VividLedger\Rule\Performance;

use VividLedger\Rule\Line\SendsSlip;
use VividLedger\Slip\Reach;
use VividLedger\Slip\SlipWay;

/** A slip is passed on while its line is done: nobody could be reached, so the record is set to the next at once. */
final readonly class InSave implements SlipWay
{
    public function __construct(private SendsSlip $line, private ActionContext $performance)
    {
    }

    public function turnTo(int $candidate): Reach
    {
        $field = $this->line->plan()->next?->field() ?? throw new \LogicException('There is no list to go along.');
        $this->performance->set($field, $candidate);

        return $this->line->reach($this->performance);
    }
}

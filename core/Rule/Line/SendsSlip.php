<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\Slip\SlipForm;
use VividLedger\Slip\Reach;
use VividLedger\Slip\SlipPlan;

/** A line that sends a slip, which other lines can wait for. */
interface SendsSlip extends Waitable
{
    public function form(): SlipForm;

    public function plan(): SlipPlan;

    /** Whom it reaches on the record as it is. */
    public function reach(ActionContext $performance): Reach;
}

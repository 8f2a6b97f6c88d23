<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Condition\Condition;
use VividLedger\People\Who;
use VividLedger\Time\Due;

/** One step of a route: whom it asks, in which order, what counts, and what happens when nobody answers. */
final readonly class RouteStep
{
    /**
     * @param  bool  $inTurn  one after another, and not side by side
     * @param  ?int  $needed  how many have to agree; null for all
     * @param  ?Condition  $onlyIf  read when the step begins; one that does not hold is left out
     * @param  ?Due  $within  how long each has; null for as long as they like
     * @param  ?Due  $remindEvery  after they were asked, and again
     * @param  int  $again  how often somebody late is asked again before they count as declining
     * @param  ?Who  $instead  to whom it is passed on
     */
    public function __construct(
        public Approvers $who,
        public bool $inTurn = false,
        public ?int $needed = null,
        public ?Condition $onlyIf = null,
        public ?Due $within = null,
        public ?Due $remindEvery = null,
        public int $mostReminders = 5,
        public WhenLate $late = WhenLate::Stop,
        public int $again = 1,
        public ?Who $instead = null,
    ) {
    }
}

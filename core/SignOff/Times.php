<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Facts\Facts;
use VividLedger\Time\Due;
use VividLedger\Time\OutOfTime;

/** When those who are asked have to be reminded, and when their time runs out: each by their own working calendar. */
final readonly class Times
{
    public function __construct(private Route $route, private Facts $facts, private \DateTimeZone $zone)
    {
    }

    /** When somebody's time runs out who is asked at a moment; null when it never does. */
    public function due(RouteStep $step, \DateTimeImmutable $from, int $person): ?\DateTimeImmutable
    {
        return $this->moment($step->within, $from, $person);
    }

    /** When somebody is to be reminded next; null when they are reminded no more before their time runs out. */
    public function reminderOf(Seat $seat): ?\DateTimeImmutable
    {
        $step = $this->route->steps[$seat->step];
        $isEnough = $step->mostReminders !== null && $seat->reminded >= $step->mostReminders;
        $every = $isEnough ? null : $step->remindEvery?->times($seat->reminded + 1);
        $moment = $this->moment($every, $seat->askedAt, $seat->person);

        return $moment !== null && ($seat->due === null || $moment < $seat->due) ? $moment : null;
    }

    /** A question keeps time still as long as there is to answer, and no longer; null where nobody's time runs out. */
    public function goesOn(Seat $seat): ?\DateTimeImmutable
    {
        return $seat->heldAt === null ? null : $this->moment($this->route->steps[$seat->step]->within, $seat->heldAt, $seat->person);
    }

    /** When a sign-off has to be tended next; null when nothing falls due any more. */
    public function wakesAt(SignOff $signOff): ?\DateTimeImmutable
    {
        $moments = [];
        foreach ($signOff->isOpen() ? $signOff->ofStep(SeatState::Waiting) : [] as $seat) {
            array_push($moments, ...($seat->asksBack() ? [$this->goesOn($seat)] : [$seat->due, $this->reminderOf($seat)]));
        }
        $moments = array_filter($moments);

        return $moments === [] ? null : min($moments);
    }

    private function moment(?Due $due, \DateTimeImmutable $from, int $person): ?\DateTimeImmutable
    {
        try {
            return $due?->from($from, $this->zone, $this->facts->calendar($this->facts->person($person)));
        } catch (OutOfTime) {
            return null;
        }
    }
}

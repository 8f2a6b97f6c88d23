<?php

declare(strict_types=1);

namespace VividLedger\Time;

/**
 * How far from a base something falls: an amount of time, then a working day if wanted, then a time of day. Reckoned by the
 * clock and calendar of the company, or of the owner of the record.
 */
final readonly class Due
{
    public function __construct(
        public Amount $amount,
        public ?Roll $roll = null,
        public ?string $time = null,
        public bool $ownersClock = false,
    ) {
    }

    /**
     * @param  ?WorkingCalendar  $calendar  null where none is needed
     *
     * @throws OutOfTime when the moment cannot be kept
     */
    public function from(\DateTimeImmutable $base, \DateTimeZone $zone, ?WorkingCalendar $calendar): \DateTimeImmutable
    {
        try {
            return OutOfTime::check($this->reckoned($base, $zone, $calendar));
        } catch (InvalidCalendar) {
            // No working day for a century is as far away as that.
            throw new OutOfTime;
        }
    }

    private function reckoned(\DateTimeImmutable $base, \DateTimeZone $zone, ?WorkingCalendar $calendar): \DateTimeImmutable
    {
        $due = $this->amount->from($base, $zone, $calendar);
        if ($this->roll !== null && $calendar !== null) {
            $due = $calendar->roll($due, $this->roll === Roll::Next, $zone);
        }
        if ($this->time === null) {
            return $due;
        }
        [$year, $month, $day] = array_map(intval(...), explode('-', $due->setTimezone($zone)->format('Y-n-j')));

        return LocalTime::instant($year, $month, $day, "{$this->time}:00", $zone);
    }

    /** Whether it takes a working calendar to reckon it. */
    public function needsCalendar(): bool
    {
        return $this->amount->unit->isWorking() || $this->roll !== null || $this->ownersClock;
    }

    /** The same so many times over: for something that comes again and again, counted from one base so that months do not drift. */
    public function times(int $turn): self
    {
        return new self(new Amount($this->amount->amount * $turn, $this->amount->unit), $this->roll, $this->time, $this->ownersClock);
    }

    /** "3 days" */
    public function length(): string
    {
        return $this->amount->unit->label(abs($this->amount->amount));
    }

    /** What is said behind the length: "at 09:00, or the next working day, by the owner’s clock". */
    public function rest(): string
    {
        $parts = array_filter([
            $this->time === null ? '' : "at {$this->time}", $this->roll?->label() ?? '', $this->ownersClock ? 'by the owner’s clock' : '',
        ]);

        return implode(', ', $parts);
    }

    /**
     * Between which instants the bases lie that lead behind one instant and not behind another. A later base leads to no
     * earlier moment, so both ends are found by halving; where the day moves to a working day and the time of day is kept,
     * that only holds of days, and some bases between the ends lead elsewhere.
     *
     * @return array{\DateTimeImmutable, \DateTimeImmutable} the first is just too early
     */
    public function bases(\DateTimeImmutable $after, \DateTimeImmutable $until, \DateTimeZone $zone, ?WorkingCalendar $calendar): array
    {
        if ($this->time === null && ($this->roll !== null || $this->amount->unit === Unit::WorkingDay)) {
            $at = fn (string $time): self => new self($this->amount, $this->roll, $time, $this->ownersClock);

            return [
                $at('23:59')->lastBefore($after->modify('-1 minute'), $zone, $calendar), $at('00:00')->lastBefore($until, $zone, $calendar),
            ];
        }

        return [$this->lastBefore($after, $zone, $calendar), $this->lastBefore($until, $zone, $calendar)];
    }

    /** The last instant that does not lead behind another. */
    private function lastBefore(\DateTimeImmutable $moment, \DateTimeZone $zone, ?WorkingCalendar $calendar): \DateTimeImmutable
    {
        $far = abs($this->amount->seconds()) * 3 + 60 * 86_400;
        [$low, $high] = [$moment->getTimestamp() - $far, $moment->getTimestamp() + $far];
        while ($high - $low > 1) {
            $middle = ($low + $high) >> 1;
            if ($this->from(new \DateTimeImmutable("@{$middle}"), $zone, $calendar) <= $moment) {
                $low = $middle;
            } else {
                $high = $middle;
            }
        }

        return new \DateTimeImmutable("@{$low}");
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Time;

/** A length of time, forwards or backwards. */
final readonly class Amount
{
    /** Ten years: what is further away is a slip of the hand. In days, for every unit. */
    private const MOST_DAYS = 3653;

    private const DAYS = [
        'minute' => 1 / 1440, 'hour' => 1 / 24, 'day' => 1, 'week' => 7, 'month' => 31, 'year' => 365, 'working_hour' => 1 / 4,
        'working_day' => 1.5,
    ];

    public function __construct(
        public int $amount,
        public Unit $unit,
    ) {
    }

    /** Roughly: a month is taken for 31 days. */
    public function seconds(): int
    {
        return (int) round($this->amount * self::DAYS[$this->unit->value] * 86_400);
    }

    public function isReasonable(): bool
    {
        return abs($this->amount) * self::DAYS[$this->unit->value] <= self::MOST_DAYS;
    }

    /**
     * The instant this far from another. Days and longer are counted in the zone and keep the local time; a month too
     * short clamps to its last day; a local time that a clock change skips moves forward by the gap, and one that
     * happens twice is the first of the two. Working units need the calendar that counts them.
     *
     * @throws OutOfTime
     */
    public function from(\DateTimeImmutable $base, \DateTimeZone $zone, ?WorkingCalendar $calendar = null): \DateTimeImmutable
    {
        if ($this->unit->isWorking()) {
            $calendar ?? throw new \LogicException('Working time is counted by a calendar.');

            return $this->unit === Unit::WorkingHour ? $calendar->add($base, 3600 * $this->amount)
                : $calendar->addDays($base, $this->amount, $zone);
        }
        if ($this->unit === Unit::Minute || $this->unit === Unit::Hour) {
            $seconds = $this->amount * ($this->unit === Unit::Minute ? 60 : 3600);

            return $base->setTimezone(new \DateTimeZone('UTC'))->modify(sprintf('%+d seconds', $seconds));
        }
        if ($this->amount === 0) {
            return $base;
        }
        $local = $base->setTimezone($zone);
        [$year, $month, $day] = array_map(intval(...), explode('-', $local->format('Y-n-j')));
        if ($this->unit === Unit::Month || $this->unit === Unit::Year) {
            $months = $year * 12 + $month - 1 + $this->amount * ($this->unit === Unit::Year ? 12 : 1);
            $year = intdiv($months, 12);
            if ($year < 1000 || $year > 9999) {
                throw new OutOfTime;
            }
            $month = $months % 12 + 1;
            $day = min($day, (int) (new \DateTimeImmutable(sprintf('%04d-%02d-01', $year, $month), new \DateTimeZone('UTC')))->format('t'));
        } else {
            $day += $this->amount * ($this->unit === Unit::Week ? 7 : 1);
        }

        return LocalTime::instant($year, $month, $day, $local->format('H:i:s'), $zone);
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Time;

use VividLedger\Words\Words;

/**
 * Working time in a zone. The spans of work are laid out once as instants, with how much work lies before each, so that an
 * addition is two binary searches; the layout grows as far as it is asked for. Working time is elapsed time: a span across
 * a clock change is shorter or longer.
 */
final class WorkingCalendar
{
    /** How many days are laid out at a time. */
    private const STEP = 400;

    /** Further than this nobody plans, and a calendar that is nearly all holidays still comes to an end. */
    private const MOST_DAYS = 40_000;

    private int $fromDay;

    private int $toDay;

    /** @var list<int> */
    private array $starts = [];

    /** @var list<int> */
    private array $ends = [];

    /** @var list<int> seconds of work before each span, counted from some fixed point */
    private array $before = [];

    public function __construct(
        private readonly WorkingHours $hours,
        public readonly \DateTimeZone $zone,
    ) {
        $this->fromDay = $this->toDay = 0;
    }

    /** @param  list<string>  $days  further days on which nobody works, "2026-12-25" */
    public function withHolidays(array $days): self
    {
        return new self($this->hours->withHolidays($days), $this->zone);
    }

    /**
     * The moment so many seconds of work later, or earlier when negative. Used up exactly at the end of a span, it is that
     * end. Zero is the next working moment, or the base if it is one.
     */
    public function add(\DateTimeImmutable $base, int $seconds): \DateTimeImmutable
    {
        $at = $base->getTimestamp();
        $this->cover($at, 0);
        $span = $this->spanAt($at);
        $inside = $span >= 0 && $at < $this->ends[$span];
        if ($seconds === 0) {
            return $inside ? $base : $this->instant($this->start($span + 1));
        }
        $done = $span < 0 ? 0 : $this->before[$span] + min($at, $this->ends[$span]) - $this->starts[$span];
        $wanted = $done + $seconds;

        return $this->instant($seconds > 0 ? $this->forward($wanted) : $this->backward($wanted));
    }

    /**
     * The same local time so many working days of a zone later, or earlier. Zero is the base itself.
     *
     * @throws InvalidCalendar when no such day comes for a century
     */
    public function addDays(\DateTimeImmutable $base, int $days, \DateTimeZone $zone): \DateTimeImmutable
    {
        if ($days === 0) {
            return $base;
        }
        $local = $base->setTimezone($zone);
        $day = self::day($local);
        $step = $days > 0 ? 1 : -1;
        for ($left = abs($days), $walked = 0; $left > 0; $walked++) {
            $day += $step;
            $left -= $this->hours->on($day) === [] ? 0 : 1;
            if ($walked > self::MOST_DAYS) {
                throw new InvalidCalendar(Words::say('There is no working day so far away.'));
            }
        }

        return self::on($day, $local->format('H:i:s'), $zone);
    }

    /** Whether the local day of a moment is one on which work is done. */
    public function isWorkingDay(\DateTimeImmutable $moment, \DateTimeZone $zone): bool
    {
        return $this->hours->on(self::day($moment->setTimezone($zone))) !== [];
    }

    /** When work ends on the calendar's own day of a moment; null when nobody works on it. */
    public function endOfDay(\DateTimeImmutable $moment): ?\DateTimeImmutable
    {
        $day = self::day($moment->setTimezone($this->zone));
        $spans = $this->hours->on($day);
        if ($spans === []) {
            return null;
        }
        $end = max(array_column($spans, 1));

        return $end === 1440 ? self::on($day + 1, '00:00:00', $this->zone)
            : self::on($day, sprintf('%02d:%02d:00', intdiv($end, 60), $end % 60), $this->zone);
    }

    /** The next or previous working day at the same local time; the moment itself when its day is one. */
    public function roll(\DateTimeImmutable $moment, bool $forward, \DateTimeZone $zone): \DateTimeImmutable
    {
        return $this->isWorkingDay($moment, $zone) ? $moment : $this->addDays($moment, $forward ? 1 : -1, $zone);
    }

    /** Seconds of work between two moments; negative when the second is earlier. */
    public function between(\DateTimeImmutable $from, \DateTimeImmutable $to): int
    {
        return $this->workBefore($to->getTimestamp()) - $this->workBefore($from->getTimestamp());
    }

    private function workBefore(int $at): int
    {
        $this->cover($at, 0);
        $span = $this->spanAt($at);

        return $span < 0 ? 0 : $this->before[$span] + min($at, $this->ends[$span]) - $this->starts[$span];
    }

    /** The moment at which so much work, counted as "before" is, has just been done. */
    private function forward(int $wanted): int
    {
        while ($this->total() < $wanted) {
            $this->grow(false);
        }
        $span = $this->spanOf($wanted, false);

        return $this->starts[$span] + $wanted - $this->before[$span];
    }

    /** The moment from which on it is still to be done. */
    private function backward(int $wanted): int
    {
        while ($this->before === [] || $this->before[0] > $wanted) {
            $this->grow(true);
        }
        $span = $this->spanOf($wanted, true);

        return $this->starts[$span] + $wanted - $this->before[$span];
    }

    private function total(): int
    {
        $last = count($this->starts) - 1;

        return $last < 0 ? 0 : $this->before[$last] + $this->ends[$last] - $this->starts[$last];
    }

    private function start(int $span): int
    {
        while (! isset($this->starts[$span])) {
            $this->grow(false);
        }

        return $this->starts[$span];
    }

    /** The last span that begins at or before a moment; -1 when all begin later. */
    private function spanAt(int $at): int
    {
        [$low, $high] = [0, count($this->starts)];
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            if ($this->starts[$middle] <= $at) {
                $low = $middle + 1;
            } else {
                $high = $middle;
            }
        }

        return $low - 1;
    }

    /** The span in which so much work is reached: at its end when going forward, at its start when going back. */
    private function spanOf(int $work, bool $backward): int
    {
        [$low, $high] = [0, count($this->before)];
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            if ($backward ? $this->before[$middle] <= $work : $this->before[$middle] < $work) {
                $low = $middle + 1;
            } else {
                $high = $middle;
            }
        }

        return max(0, $low - 1);
    }

    /** Lays out the days around a moment. */
    private function cover(int $at, int $tries): void
    {
        $day = intdiv($at, 86_400);
        if ($this->starts === [] && $this->fromDay === $this->toDay) {
            $this->fromDay = $this->toDay = $day - 2;
            $this->grow(false);
        }
        while ($day - 2 < $this->fromDay) {
            $this->grow(true);
        }
        while ($day + 3 > $this->toDay || $this->starts === []) {
            $this->grow(false);
            if (++$tries > self::MOST_DAYS / self::STEP) {
                throw new InvalidCalendar(Words::say('There is no working day for a century.'));
            }
        }
    }

    private function grow(bool $back): void
    {
        $from = $back ? $this->fromDay - self::STEP : $this->toDay;
        if ($this->toDay - $this->fromDay > 2 * self::MOST_DAYS) {
            throw new InvalidCalendar(Words::say('There is no working time so far away.'));
        }
        $starts = $ends = $before = [];
        $work = $back ? 0 : $this->total();
        for ($day = $from; $day < $from + self::STEP; $day++) {
            foreach ($this->hours->on($day) as [$begin, $end]) {
                $starts[] = $start = self::on($day, sprintf('%02d:%02d:00', intdiv($begin, 60), $begin % 60), $this->zone)->getTimestamp();
                $ends[] = $stop = ($end === 1440 ? self::on($day + 1, '00:00:00', $this->zone)
                    : self::on($day, sprintf('%02d:%02d:00', intdiv($end, 60), $end % 60), $this->zone))->getTimestamp();
                $before[] = $work;
                $work += max(0, $stop - $start);
            }
        }
        if ($back) {
            $this->fromDay = $from;
            // What was laid out keeps its count; what lies before it counts up to there.
            $shift = ($this->before[0] ?? 0) - $work;
            $before = array_map(static fn (int $done): int => $done + $shift, $before);
            [$this->starts, $this->ends, $this->before] = [
                [...$starts, ...$this->starts], [...$ends, ...$this->ends], [...$before, ...$this->before],
            ];
        } else {
            $this->toDay = $from + self::STEP;
            [$this->starts, $this->ends, $this->before] = [
                [...$this->starts, ...$starts], [...$this->ends, ...$ends], [...$this->before, ...$before],
            ];
        }
    }

    private function instant(int $at): \DateTimeImmutable
    {
        return new \DateTimeImmutable("@{$at}");
    }

    private static function day(\DateTimeImmutable $local): int
    {
        return intdiv(
            $local->getTimestamp() + $local->getOffset() - ((($local->getTimestamp() + $local->getOffset()) % 86_400 + 86_400) % 86_400),
            86_400,
        );
    }

    private static function on(int $day, string $time, \DateTimeZone $zone): \DateTimeImmutable
    {
        [$year, $month, $date] = array_map(intval(...), explode('-', gmdate('Y-n-j', $day * 86_400)));

        return LocalTime::instant($year, $month, $date, $time, $zone);
    }
}

<?php

declare(strict_types=1);

namespace App\Demo;

use Closure;
use Random\Engine\Mt19937;
use Random\Randomizer;

/** The play of the demo's history: chance that repeats itself, and what is still to happen, by time. */
final class Stage
{
    public readonly Randomizer $random;

    /** @var \SplPriorityQueue<int, Closure(): void> */
    public readonly \SplPriorityQueue $ahead;

    /** @param  int  $end  the moment the play ends, in seconds since 1970 */
    public function __construct(int $seed, public readonly int $end)
    {
        $this->random = new Randomizer(new Mt19937($seed));
        $this->ahead = new \SplPriorityQueue;
    }

    /** @param  Closure(): void  $happening left out when it would be after the end */
    public function at(int $time, Closure $happening): void
    {
        if ($time < $this->end) {
            // The queue gives the highest first; the count keeps what shares a second in order.
            $this->ahead->insert($happening, -($time * 1000 + $this->ahead->count() % 1000));
        }
    }

    /** A moment between two, moved into working hours if it lies at night or at a weekend. */
    public function workingMoment(int $from, int $to): int
    {
        $at = (new \DateTimeImmutable('@'.$this->random->getInt($from, max($from, $to))))->setTime(
            $this->random->getInt(7, 15),
            $this->random->getInt(0, 59),
        );
        while ((int) $at->format('N') > 5 || $at->getTimestamp() < $from) {
            $at = $at->modify('+1 day');
        }

        return $at->getTimestamp();
    }

    /** Whether something that happens once in so many times happens now. */
    public function onceIn(int $times): bool
    {
        return $this->random->getInt(1, $times) === 1;
    }

    /**
     * @param  list<mixed>  $from  of which there is at least one
     */
    public function one(array $from): mixed
    {
        return $from[$this->random->getInt(0, count($from) - 1)];
    }
}

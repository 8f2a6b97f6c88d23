<?php

declare(strict_types=1);

namespace Bench;

/** Times a piece of work beside its floor, turn by turn in the same run. */
final class Timing
{
    private const ROUNDS = 9;

    /**
     * @param  int  $times  how often the work is done in a round
     * @param  callable(): mixed  $work
     * @param  callable(): mixed  $floor
     * @return array{float, float} microseconds of the work, and its ratio to the floor
     */
    public static function pair(string $what, string $beside, int $times, callable $work, callable $floor, float $wanted): array
    {
        $ours = $floors = [];
        for ($round = 0; $round < self::ROUNDS; $round++) {
            // The order alternates, so that neither always finds the caches warm.
            if ($round % 2 === 0) {
                $ours[] = self::microseconds($times, $work);
                $floors[] = self::microseconds($times, $floor);
            } else {
                $floors[] = self::microseconds($times, $floor);
                $ours[] = self::microseconds($times, $work);
            }
        }
        $mine = self::median($ours);
        $theirs = self::median($floors);
        Figures::pair($what, $mine, $beside, $theirs, 'µs', $wanted);

        return [$mine, $mine / $theirs];
    }

    /** @param  callable(): mixed  $work */
    public static function microseconds(int $times, callable $work): float
    {
        $from = hrtime(true);
        for ($count = 0; $count < $times; $count++) {
            $work();
        }

        return (hrtime(true) - $from) / 1000 / $times;
    }

    /**
     * The value that so many of a hundred do not exceed; 0 of none.
     *
     * @param  list<float>  $values
     */
    public static function percentile(array $values, int $percent): float
    {
        sort($values);

        return $values === [] ? 0.0 : $values[(int) min(count($values) - 1, floor(count($values) * $percent / 100))];
    }

    /** @param  list<float>  $values */
    public static function median(array $values): float
    {
        sort($values);

        return $values[intdiv(count($values), 2)];
    }
}

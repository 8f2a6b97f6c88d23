<?php

declare(strict_types=1);

namespace App\Store\Operations;

use App\Models\Timing\TimingSum;
use Illuminate\Support\Facades\DB;

/** How long saves and the decisions in them take: summed up in memory, and written when the answer is out. */
final class Timings
{
    /** Upper ends in seconds; what takes longer than the last stands in one more. */
    public const BUCKETS = [0.002, 0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1.0, 2.5];

    public const NAMES = ['decide', 'save'];

    /** @var array<string, array{int, float}> count and seconds, by name and bucket */
    private array $sums = [];

    /**
     * @template T
     *
     * @param  \Closure(): T  $work
     * @return T
     */
    public function of(string $name, \Closure $work): mixed
    {
        $began = hrtime(true);
        try {
            return $work();
        } finally {
            $this->add($name, (hrtime(true) - $began) / 1e9);
        }
    }

    public function flush(): void
    {
        if ($this->sums === []) {
            return;
        }
        [$places, $bindings] = [[], []];
        foreach ($this->sums as $key => [$count, $seconds]) {
            $places[] = '(?, ?, ?, ?)';
            array_push($bindings, ...explode(' ', $key), ...[$count, $seconds]);
        }
        $this->sums = [];
        DB::insert('INSERT INTO '.TimingSum::tableName().' (name, bucket, count, seconds) VALUES '.implode(', ', $places)
            .' ON DUPLICATE KEY UPDATE count = count + VALUES(count), seconds = seconds + VALUES(seconds)', $bindings);
    }

    private function add(string $name, float $seconds): void
    {
        $bucket = 0;
        while (isset(self::BUCKETS[$bucket]) && $seconds > self::BUCKETS[$bucket]) {
            $bucket++;
        }
        [$count, $sum] = $this->sums["{$name} {$bucket}"] ?? [0, 0.0];
        $this->sums["{$name} {$bucket}"] = [$count + 1, $sum + $seconds];
    }
}

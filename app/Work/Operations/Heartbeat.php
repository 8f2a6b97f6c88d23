<?php

declare(strict_types=1);

namespace App\Work\Operations;

use App\Models\Operations\WorkerProcess;

/** Lets a long-running process be seen: in Setup, and by whoever watches over the machines. */
final class Heartbeat
{
    private const EVERY_SECONDS = 2;

    private const DEAD_AFTER_SECONDS = 15;

    private float $last = 0.0;

    private readonly string $process;

    private readonly string $startedAt;

    public function __construct(
        private readonly string $kind,
    ) {
        $this->process = substr(gethostname().':'.getmypid(), 0, 120);
        $this->startedAt = gmdate('Y-m-d H:i:s');
    }

    /** @param  int  $done what the process has done since it started */
    public function beat(int $done): void
    {
        if (microtime(true) - $this->last < self::EVERY_SECONDS) {
            return;
        }
        $this->last = microtime(true);
        WorkerProcess::query()->upsert([
            'process' => $this->process, 'kind' => $this->kind, 'started_at' => $this->startedAt, 'beat_at' => gmdate('Y-m-d H:i:s'),
            'done' => $done,
        ], ['process'], ['kind', 'started_at', 'beat_at', 'done']);
    }

    public function end(): void
    {
        WorkerProcess::query()->where('process', $this->process)->delete();
    }

    /** Judged by the machine's own time: a house clock that is turned forward does not age a process. */
    public static function isAlive(\DateTimeImmutable $beatAt): bool
    {
        return time() - $beatAt->getTimestamp() <= self::DEAD_AFTER_SECONDS;
    }
}

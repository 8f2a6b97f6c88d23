<?php

declare(strict_types=1);

namespace App\Work\Operations;

use Illuminate\Queue\Events\JobProcessed;
use Illuminate\Queue\Events\Looping;
use Illuminate\Queue\Events\WorkerStopping;

/** Lets the framework's queue workers be seen like the other processes. */
final class QueueHeartbeat
{
    private ?Heartbeat $heartbeat = null;

    private int $done = 0;

    public function looping(Looping $event): void
    {
        ($this->heartbeat ??= new Heartbeat($event->queue))->beat($this->done);
    }

    public function processed(JobProcessed $event): void
    {
        $this->done++;
    }

    public function stopping(WorkerStopping $event): void
    {
        $this->heartbeat?->end();
    }
}

<?php

declare(strict_types=1);

namespace App\Work\Operations;

use Illuminate\Queue\Worker;
use Illuminate\Queue\WorkerOptions;

/** The framework's queue worker, but that it waits while the database is away, where that one would end again and again. */
final class PatientWorker extends Worker
{
    private const WAIT_SECONDS = 2;

    /** @var int|null when workers were last told to begin anew, as far as it is known */
    private mixed $toldToRestart = null;

    public static function like(Worker $worker): self
    {
        return new self($worker->manager, $worker->events, $worker->exceptions, $worker->isDownForMaintenance, $worker->resetScope);
    }

    /** @param  \Throwable  $e */
    protected function stopWorkerIfLostConnection($e): void
    {
        if ($this->causedByLostConnection($e)) {
            $this->sleep(self::WAIT_SECONDS);
        }
    }

    /**
     * @param  string  $connectionName
     * @param  string  $queue
     */
    protected function daemonShouldRun(WorkerOptions $options, $connectionName, $queue): bool
    {
        return $this->patiently(fn (): bool => parent::daemonShouldRun($options, $connectionName, $queue), false);
    }

    /** @return int|null */
    protected function getTimestampOfLastQueueRestart()
    {
        return $this->toldToRestart = $this->patiently(fn (): mixed => parent::getTimestampOfLastQueueRestart(), $this->toldToRestart);
    }

    /**
     * @template T
     *
     * @param  \Closure(): T  $ask
     * @param  T  $else
     * @return T
     */
    private function patiently(\Closure $ask, mixed $else): mixed
    {
        try {
            return $ask();
        } catch (\Throwable $away) {
            if (! $this->causedByLostConnection($away)) {
                throw $away;
            }
            $this->sleep(self::WAIT_SECONDS);

            return $else;
        }
    }
}

<?php

declare(strict_types=1);

namespace App\Console;

use App\Store\RunStore;
use App\Work\ClockTurner;
use App\Work\Heartbeat;
use App\Work\LineWorker;
use App\Work\Postman;
use App\Work\Sweep;
use Illuminate\Console\Command;
use Illuminate\Database\Connection;
use Illuminate\Database\DetectsLostConnections;

/** The worker: puts into ink what falls due, until it is told to stop. It outlives a restart of the database. */
final class WorkCommand extends Command
{
    use DetectsLostConnections;

    private const SWEEP_SECONDS = 5;

    private const LONGEST_WAIT_SECONDS = 10;

    protected $signature = 'ledger:work {--once : do what is due now, then end}';

    protected $description = 'Put into ink what falls due';

    private bool $stop = false;

    private float $sweptAt = 0.0;

    public function handle(LineWorker $worker, RunStore $runs, Postman $postman, Sweep $sweep, ClockTurner $turner, Connection $db): int
    {
        $this->trap([SIGTERM, SIGINT], function (): void {
            $this->stop = true;
        });
        $heartbeat = new Heartbeat($db, 'worker');
        $batch = (int) config('ledger.batch');
        $done = 0;
        $wait = 1;
        do {
            try {
                $now = $turner->work(1.0) + $this->sweep($sweep) + $worker->work($batch) + $runs->work(1.0) + $postman->work(20);
                $done += $now;
                if ($this->option('once')) {
                    if ($now < $batch) {
                        break;
                    }

                    continue;
                }
                $heartbeat->beat($done);
                $wait = 1;
                if ($now === 0) {
                    usleep(500_000);
                }
            } catch (\Throwable $trouble) {
                if ($this->option('once')) {
                    throw $trouble;
                }
                // A transaction that was cut short has left nothing behind; what it was at is still due.
                report($trouble);
                if ($this->causedByLostConnection($trouble)) {
                    $db->disconnect();
                }
                sleep($wait);
                $wait = min(2 * $wait, self::LONGEST_WAIT_SECONDS);
            }
        } while (! $this->stop);
        $heartbeat->end();

        return self::SUCCESS;
    }

    private function sweep(Sweep $sweep): int
    {
        if (! $this->option('once') && microtime(true) - $this->sweptAt < self::SWEEP_SECONDS) {
            return 0;
        }
        $this->sweptAt = microtime(true);

        return $sweep->work();
    }
}

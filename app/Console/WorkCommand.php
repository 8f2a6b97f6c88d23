<?php

declare(strict_types=1);

namespace App\Console;

use App\Work\Heartbeat;
use App\Work\LineWorker;
use Illuminate\Console\Command;
use Illuminate\Database\Connection;

/** The worker: puts into ink what fell due, until it is told to stop. */
final class WorkCommand extends Command
{
    protected $signature = 'ledger:work {--once : do what is due now, then end}';

    protected $description = 'Put into ink what falls due';

    private bool $stop = false;

    public function handle(LineWorker $worker, Connection $db): int
    {
        $this->trap([SIGTERM, SIGINT], function (): void {
            $this->stop = true;
        });
        $heartbeat = new Heartbeat($db, 'worker');
        $batch = (int) config('ledger.batch');
        $done = 0;
        do {
            $now = $worker->work($batch);
            $done += $now;
            if ($this->option('once')) {
                if ($now < $batch) {
                    break;
                }

                continue;
            }
            $heartbeat->beat($done);
            if ($now < $batch) {
                usleep(500_000);
            }
        } while (! $this->stop);
        $heartbeat->end();

        return self::SUCCESS;
    }
}

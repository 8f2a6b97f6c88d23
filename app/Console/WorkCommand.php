<?php

declare(strict_types=1);

namespace App\Console;

use App\Store\RunStore;
use App\Work\Heartbeat;
use App\Work\LineWorker;
use App\Work\Postman;
use Illuminate\Console\Command;
use Illuminate\Database\Connection;

/** The worker: puts into ink what fell due, until it is told to stop. */
final class WorkCommand extends Command
{
    protected $signature = 'ledger:work {--once : do what is due now, then end}';

    protected $description = 'Put into ink what falls due';

    private bool $stop = false;

    public function handle(LineWorker $worker, RunStore $runs, Postman $postman, Connection $db): int
    {
        $this->trap([SIGTERM, SIGINT], function (): void {
            $this->stop = true;
        });
        $heartbeat = new Heartbeat($db, 'worker');
        $batch = (int) config('ledger.batch');
        $done = 0;
        do {
            $now = $worker->work($batch) + $runs->work(1.0) + $postman->work(20);
            $done += $now;
            if ($this->option('once')) {
                if ($now < $batch) {
                    break;
                }

                continue;
            }
            $heartbeat->beat($done);
            if ($now === 0) {
                usleep(500_000);
            }
        } while (! $this->stop);
        $heartbeat->end();

        return self::SUCCESS;
    }
}

<?php

declare(strict_types=1);

namespace App\Console;

use App\Evidence\Proofs;
use App\Store\RunStore;
use App\Work\ClockTurner;
use App\Work\Heartbeat;
use App\Work\LineWorker;
use App\Work\Postman;
use App\Work\Sweep;
use Illuminate\Console\Command;
use Illuminate\Database\Connection;

/** The worker: looks for what time sets off and puts into ink what falls due, until it is told to stop. */
final class WorkCommand extends Command
{
    use Steadily;

    private const SWEEP_SECONDS = 5;

    protected $signature = 'ledger:work {--once : do what is due now, then end}';

    protected $description = 'Put into ink what falls due';

    private float $sweptAt = 0.0;

    public function handle(LineWorker $worker, RunStore $runs, Postman $postman, Sweep $sweep, ClockTurner $turner, Proofs $proofs, Connection $db): int
    {
        $batch = (int) config('ledger.batch');
        $turn = fn (): int => $turner->work(1.0) + $this->sweep($sweep) + $worker->work($batch) + $runs->work(1.0) + $postman->work(20) + $proofs->work(20);
        if ($this->option('once')) {
            while ($turn() >= $batch);

            return self::SUCCESS;
        }
        $heartbeat = new Heartbeat($db, 'worker');
        $done = 0;
        $this->steadily($db, static function () use ($turn, $heartbeat, &$done): void {
            $now = $turn();
            $done += $now;
            $heartbeat->beat($done);
            if ($now === 0) {
                usleep(500_000);
            }
        });
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

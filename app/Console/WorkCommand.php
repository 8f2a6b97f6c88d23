<?php

declare(strict_types=1);

namespace App\Console;

use App\Work\Operations\ConfigurationWatch;
use App\Work\Operations\Heartbeat;
use App\Work\Operations\Lane;
use App\Work\Operations\Lanes;
use Illuminate\Console\Command;
use Illuminate\Database\Connection;

/** A worker: does what is due in one lane, or in all of them, until it is told to stop. Any number may run in each. */
final class WorkCommand extends Command
{
    use Steadily;

    protected $signature = 'ledger:work {lanes?* : lines, sweep, turn, notices or fetch; all when none is named}'
        .' {--once : do what is due now, then end}';

    protected $description = 'Put into ink what falls due, sweep, turn the clock, fetch mail';

    public function handle(Lanes $lanes, Connection $db, ConfigurationWatch $watch): int
    {
        $named = [];
        foreach ((array) $this->argument('lanes') as $name) {
            $lane = Lane::tryFrom((string) $name);
            if ($lane === null) {
                $this->error("There is no lane ‘{$name}’. There are ".implode(', ', array_column(Lane::cases(), 'value')).'.');

                return self::INVALID;
            }
            $named[] = $lane;
        }
        $named = $named === [] ? Lane::cases() : $named;
        if ($this->option('once')) {
            while (array_sum(array_map($lanes->work(...), $named)) > 0);

            return self::SUCCESS;
        }
        $heartbeat = new Heartbeat(count($named) === 1 ? $named[0]->value : 'worker');
        $done = 0;
        $restedUntil = [];
        $this->steadily($db, $heartbeat, $watch, function () use ($lanes, $named, $heartbeat, &$done, &$restedUntil): void {
            $worked = 0;
            foreach ($named as $lane) {
                if (microtime(true) < ($restedUntil[$lane->value] ?? 0.0)) {
                    continue;
                }
                $now = $lanes->work($lane);
                $worked += $now;
                $restedUntil[$lane->value] = $now === 0 ? microtime(true) + $lane->rest() : 0.0;
                $heartbeat->beat($done += $now);
            }
            if ($worked === 0) {
                $heartbeat->beat($done);
                usleep((int) (1_000_000 * min(0.3, max(0.02, min(INF, ...array_values($restedUntil)) - microtime(true)))));
            }
        });

        return self::SUCCESS;
    }
}

<?php

declare(strict_types=1);

namespace App\Console;

use App\Demo\Demo;
use App\Store\HouseClock;
use App\Store\Lists\ViewStore;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\Cache;

/** Loads the demo company, once. */
final class DemoLoadCommand extends Command
{
    private const HALF_LOADED = 'demo_half_loaded';

    protected $signature = 'demo:load {--without-history : people, record types and rules only}';

    protected $description = 'Load the demo company Larkmoss';

    public function handle(Demo $demo, HouseClock $clock, ViewStore $views): int
    {
        if ($demo->isLoaded()) {
            // A first load that was cut short is begun again.
            if (! Cache::store('database')->has(self::HALF_LOADED)) {
                return self::SUCCESS;
            }
            $this->call('migrate:fresh', ['--force' => true, '--quiet' => true]);
        }
        Cache::store('database')->forever(self::HALF_LOADED, true);
        // Nobody is called for what happened long ago.
        config(['queue.default' => 'null']);
        $now = new \DateTimeImmutable('@'.time());
        $clock->hold($now->modify('-18 months -1 day'));
        $demo->loadBase();
        $demo->loadRules();
        if (! $this->option('without-history')) {
            $shown = -1;
            $demo->loadHistory($now, function (int $done, int $all) use (&$shown): void {
                $percent = intdiv(100 * $done, $all);
                if ($percent >= $shown + 5) {
                    $this->output->write("\r  Playing 18 months of Larkmoss … {$percent} %");
                    $shown = $percent;
                }
            });
            $this->output->writeln("\r  Playing 18 months of Larkmoss … done ");
            $demo->pauseRules();
            $clock->hold(null);
            $demo->sendAway($clock);
            $demo->keepProofs();
            $demo->shareViews($views);
        } else {
            $demo->loadRulesInTime();
        }
        $clock->hold(null);
        Cache::store('database')->forget(self::HALF_LOADED);

        return self::SUCCESS;
    }
}

<?php

declare(strict_types=1);

namespace App\Console;

use App\Demo\Demo;
use App\Work\HouseClock;
use Illuminate\Console\Command;
use Illuminate\Database\Connection;

/** Loads the demo company, once. */
final class DemoLoadCommand extends Command
{
    protected $signature = 'demo:load {--without-history : people, record types and rules only}';

    protected $description = 'Load the demo company Larkmoss';

    public function handle(Demo $demo, HouseClock $clock, Connection $db): int
    {
        if ($demo->isLoaded()) {
            // A first load that was cut short is begun again.
            if ($db->scalar("SELECT COUNT(*) FROM cache WHERE `key` = 'demo_half_loaded'") === 0) {
                return self::SUCCESS;
            }
            $this->call('migrate:fresh', ['--force' => true, '--quiet' => true]);
        }
        $db->table('cache')->insert(['key' => 'demo_half_loaded', 'value' => '', 'expiration' => 2_147_483_647]);
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
            $demo->keepProofs();
        } else {
            $demo->loadRulesInTime();
        }
        $clock->hold(null);
        $db->table('cache')->where('key', 'demo_half_loaded')->delete();

        return self::SUCCESS;
    }
}

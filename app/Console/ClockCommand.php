<?php

declare(strict_types=1);

namespace App\Console;

use App\Work\Operations\ConfigurationWatch;
use App\Work\Operations\Heartbeat;
use Illuminate\Console\Command;
use Illuminate\Database\Connection;

/** The clock process: shows that time is kept, and does what comes by the minute (routes/console.php). */
final class ClockCommand extends Command
{
    use Steadily;

    protected $signature = 'ledger:clock';

    protected $description = 'Do what comes by the minute, until it is told to stop';

    public function handle(Connection $db, ConfigurationWatch $watch): int
    {
        $heartbeat = new Heartbeat('clock');
        $minutes = 0;
        $next = 0;
        $this->steadily($db, $heartbeat, $watch, function () use ($heartbeat, &$minutes, &$next): void {
            if (time() >= $next) {
                $this->callSilently('schedule:run');
                $minutes++;
                $next = (intdiv(time(), 60) + 1) * 60;
            }
            $heartbeat->beat($minutes);
            usleep(500_000);
        });

        return self::SUCCESS;
    }
}

<?php

declare(strict_types=1);

namespace App\Console;

use App\Work\Heartbeat;
use App\Work\Housekeeping;
use Illuminate\Console\Command;
use Illuminate\Database\Connection;

/** The clock process: shows that time is kept, and sweeps the house every minute. */
final class ClockCommand extends Command
{
    use Steadily;

    private const SWEEP_SECONDS = 60;

    protected $signature = 'ledger:clock';

    protected $description = 'Keep the house in order, minute by minute';

    public function handle(Housekeeping $housekeeping, Connection $db): int
    {
        $heartbeat = new Heartbeat('clock');
        $swept = 0;
        $next = 0;
        $this->steadily($db, $heartbeat, static function () use ($housekeeping, $heartbeat, &$swept, &$next): void {
            if (time() >= $next) {
                $swept += $housekeeping->sweep();
                $next = time() + self::SWEEP_SECONDS;
            }
            $heartbeat->beat($swept);
            usleep(500_000);
        });

        return self::SUCCESS;
    }
}

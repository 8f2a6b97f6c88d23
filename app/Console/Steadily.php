<?php

declare(strict_types=1);

namespace App\Console;

use App\Work\Operations\ConfigurationWatch;
use App\Work\Operations\Heartbeat;
use Illuminate\Database\Connection;
use Illuminate\Database\DetectsLostConnections;

/**
 * For processes that run for ever: trouble is reported and tried again after a while, and a database that restarts is waited for.
 * Not even a log that cannot be written ends one.
 */
trait Steadily
{
    use DetectsLostConnections;

    private const LONGEST_WAIT_SECONDS = 10;

    private bool $stop = false;

    private int $wait = 1;

    /** @param  callable(): void  $turn  done again and again until the process is told to stop */
    private function steadily(Connection $db, Heartbeat $heartbeat, ConfigurationWatch $watch, callable $turn): void
    {
        $this->trap([SIGTERM, SIGINT], function (): void {
            $this->stop = true;
        });
        while (! $this->stop) {
            try {
                $watch->look();
                $turn();
                $this->wait = 1;
            } catch (\Throwable $trouble) {
                // A transaction that was cut short has left nothing behind; what it was at is still due.
                $this->tell($trouble);
                if ($this->causedByLostConnection($trouble)) {
                    $db->disconnect();
                }
                for ($second = 0; $second < $this->wait && ! $this->stop; $second++) {
                    sleep(1);
                }
                $this->wait = min(2 * $this->wait, self::LONGEST_WAIT_SECONDS);
            }
        }
        try {
            $heartbeat->end();
        } catch (\Throwable $trouble) {
            $this->tell($trouble);
        }
    }

    private function tell(\Throwable $trouble): void
    {
        try {
            report($trouble);
        } catch (\Throwable) {
            // There is nowhere to tell it just now.
        }
    }
}

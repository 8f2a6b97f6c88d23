<?php

declare(strict_types=1);

namespace App\Console;

use App\StandIn\MailRoom;
use App\StandIn\SmtpServer;
use App\Work\Operations\ConfigurationWatch;
use App\Work\Operations\Heartbeat;
use Illuminate\Console\Command;
use Illuminate\Database\Connection;

/** The mail room: a stand-in mail server on loopback, whose letters the application shows on a shelf. */
final class MailRoomCommand extends Command
{
    use Steadily;

    protected $signature = 'ledger:mail-room {--port=1025 : on loopback; 0 for any}';

    protected $description = 'Take in mail and keep it on the shelf';

    public function handle(MailRoom $room, Connection $db, ConfigurationWatch $watch): int
    {
        $heartbeat = new Heartbeat('mail room');
        $taken = 0;
        $server = new SmtpServer('127.0.0.1:'.$this->option('port'), function (string $raw) use ($room, $db, &$taken): bool {
            try {
                $room->takeMail($raw);
                $taken++;

                return true;
            } catch (\Throwable $trouble) {
                // Whoever brought it keeps it and comes again.
                $this->tell($trouble);
                $db->disconnect();

                return false;
            }
        });
        $this->steadily($db, $heartbeat, $watch, static function () use ($server, $heartbeat, &$taken): void {
            $server->serve(0.5);
            $heartbeat->beat($taken);
        });

        return self::SUCCESS;
    }
}

<?php

declare(strict_types=1);

namespace App\Console;

use App\StandIn\BackOffice;
use App\StandIn\HttpServer;
use App\Work\Outbound\BackOfficeDoor;
use Illuminate\Console\Command;

/** The back office: a stand-in for an accounting system, a process of its own on loopback. */
final class BackOfficeCommand extends Command
{
    protected $signature = 'ledger:back-office {--port=8600 : on loopback; 0 for any} {--books= : the file of its books}';

    protected $description = 'Play an accounting system';

    public function handle(): int
    {
        $books = (string) ($this->option('books') ?: storage_path('app/back-office.json'));
        $office = new BackOffice($books, BackOfficeDoor::secret());
        $server = new HttpServer('127.0.0.1:'.$this->option('port'), $office->answer(...));
        $this->line($server->address());
        $goes = true;
        $this->trap([SIGTERM, SIGINT, SIGHUP], static function () use (&$goes): void {
            $goes = false;
        });
        while ($goes) {
            $server->serve(0.25);
        }

        return self::SUCCESS;
    }
}

<?php

declare(strict_types=1);

namespace Tests\App\Support;

use App\StandIn\SmtpServer;
use Illuminate\Support\Facades\DB;
use Symfony\Component\Process\Process;

/** Lets letters really go over the wire, to be judged as they arrive. */
trait Delivers
{
    /** The letter as it arrives: the raw EML. The postman and the mail room speak to each other in two processes, as they do at work. */
    protected function delivered(int $message): string
    {
        $taken = [];
        $server = new SmtpServer('127.0.0.1:0', static function (string $raw) use (&$taken): void {
            $taken[] = $raw;
        });
        $port = (int) substr((string) strrchr($server->address(), ':'), 1);
        $postman = Process::fromShellCommandline(PHP_BINARY.' tests/App/Support/deliver.php', base_path(), [
            'MESSAGE' => json_encode(
                DB::selectOne('SELECT * FROM messages WHERE id = ?', [$message]),
                JSON_THROW_ON_ERROR,
            ), 'MAIL_DSN' => "smtp://127.0.0.1:{$port}?auto_tls=false",
        ]);
        $postman->start();
        for ($until = microtime(true) + 20; $postman->isRunning() && microtime(true) < $until;) {
            $server->serve(0.1);
        }
        self::assertSame(0, $postman->wait(), $postman->getErrorOutput());
        self::assertCount(1, $taken);

        return $taken[0];
    }

    /**
     * What arrives of a letter that is sent in this very process.
     *
     * @param  \Closure(): void  $send
     */
    protected function arriving(\Closure $send): string
    {
        $server = new Process([PHP_BINARY, 'tests/App/Support/take_letter.php'], base_path());
        $server->start();
        $server->waitUntil(static fn (string $type, string $output): bool => str_contains($output, "\n"));
        $port = (int) $server->getOutput();
        $before = config('ledger.mail.dsn');
        config(['ledger.mail.dsn' => "smtp://127.0.0.1:{$port}?auto_tls=false"]);
        try {
            $send();
        } finally {
            config(['ledger.mail.dsn' => $before]);
        }
        self::assertSame(0, $server->wait(), $server->getErrorOutput());

        return explode("\n", $server->getOutput(), 2)[1];
    }

    /** @return array{Process, int} a mail server with a habit, and its port */
    protected function oddServer(string $habit, string $seconds = '0'): array
    {
        $server = new Process([PHP_BINARY, 'tests/App/Support/odd_server.php', $habit, $seconds], base_path());
        $server->start();
        $server->waitUntil(static fn (string $type, string $output): bool => str_contains($output, "\n"));

        return [$server, (int) $server->getOutput()];
    }
}

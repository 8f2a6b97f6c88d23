<?php

declare(strict_types=1);

namespace App\Work\Operations;

use Illuminate\Database\Connection;
use Symfony\Component\Process\Process;

/** The programs that come with the database, with the same way in as the application has. */
final class DatabaseTool
{
    /**
     * @param  list<string>  $arguments
     * @return Process not started yet; the password stands in its environment, where no list of processes shows it
     */
    public static function process(Connection $db, string $program, array $arguments): Process
    {
        $socket = (string) $db->getConfig('unix_socket');
        $way = $socket !== '' ? ["--socket={$socket}"]
            : ["--host={$db->getConfig('host')}", "--port={$db->getConfig('port')}", '--protocol=tcp'];

        return new Process(
            [$program, '--no-defaults', ...$way, "--user={$db->getConfig('username')}", '--default-character-set=utf8mb4', ...$arguments],
            env: ['MYSQL_PWD' => (string) $db->getConfig('password')],
            timeout: null,
        );
    }
}

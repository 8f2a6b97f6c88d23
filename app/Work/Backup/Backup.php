<?php

declare(strict_types=1);

namespace App\Work\Backup;

use App\Store\Refused;
use App\Store\RefusedFor;
use Illuminate\Database\Connection;
use Symfony\Component\Process\Process;

/** Writes down all there is, as it was at one moment, while everybody goes on working. Files on records are part of the database. */
final readonly class Backup
{
    /** What is no loss: whoever is signed in signs in again. */
    private const WITHOUT_ROWS = ['sessions', 'cache', 'cache_locks', 'heartbeats'];

    public function __construct(private Connection $db)
    {
    }

    /**
     * @param  string  $path  of a file that is not there yet; it appears when it is whole
     *
     * @throws Refused
     */
    public function write(string $path): Manifest
    {
        if (file_exists($path)) {
            throw new Refused('exists', "{$path} is there already, and is left as it is.", RefusedFor::Conflict);
        }
        $part = "{$path}.part";
        $file = @gzopen($part, 'wb6');
        if ($file === false) {
            throw new Refused('unwritable', "{$path} cannot be written.", RefusedFor::Conflict);
        }
        $manifest = Manifest::of($this->db);
        $database = (string) $this->db->getDatabaseName();
        $dump = DatabaseTool::process($this->db, 'mariadb-dump', [
            '--single-transaction', '--quick', '--hex-blob', '--skip-lock-tables', '--skip-comments', '--no-tablespaces',
            ...array_map(static fn (string $table): string => "--ignore-table-data={$database}.{$table}", self::WITHOUT_ROWS), $database,
        ]);
        gzwrite($file, $manifest->line());
        $trouble = '';
        // What has been written on is kept nowhere else.
        $dump->disableOutput()->run(static function (string $type, string $bytes) use ($file, &$trouble): void {
            if ($type === Process::OUT) {
                gzwrite($file, $bytes);
            } else {
                $trouble .= $bytes;
            }
        });
        gzwrite($file, "\n".Manifest::END."\n");
        gzclose($file);
        if (! $dump->isSuccessful()) {
            unlink($part);
            throw new Refused('failed', 'The database could not be read: '.trim($trouble), RefusedFor::Busy);
        }
        rename($part, $path);

        return $manifest;
    }
}

<?php

declare(strict_types=1);

namespace App\Work\Operations;

use App\Store\DomainError;
use App\Store\RefusedFor;
use Illuminate\Database\Connection;
use Symfony\Component\Process\Process;

/** Writes down all there is, as it was at one moment, while everybody goes on working. Files on records are part of the database. */
final readonly class Backup
{
    /** What is no loss: whoever is signed in signs in again; and the letters of the stand-in, whose links let somebody act. */
    private const WITHOUT_ROWS = ['sessions', 'cache', 'cache_locks', 'heartbeats', 'mail_room'];

    public function __construct(private Connection $db)
    {
    }

    /**
     * @param  string  $path  of a file that is not there yet; it appears when it is whole
     *
     * @throws DomainError
     */
    public function write(string $path): Manifest
    {
        if (file_exists($path)) {
            throw new DomainError('exists', "{$path} is there already, and is left as it is.", RefusedFor::Conflict);
        }
        $part = "{$path}.part";
        try {
            $manifest = $this->dump($part);
            // What has been written is read once more: only then is it a backup.
            Restore::whole($part);
        } catch (DomainError $refused) {
            @unlink($part);
            throw $refused;
        }
        if (! @rename($part, $path)) {
            @unlink($part);
            throw new DomainError('unwritable', "{$path} cannot be written.", RefusedFor::Conflict);
        }

        return $manifest;
    }

    /** @throws DomainError */
    private function dump(string $path): Manifest
    {
        $file = GzFile::create($path);
        $manifest = Manifest::of($this->db);
        $database = (string) $this->db->getDatabaseName();
        $dump = DatabaseTool::process($this->db, 'mariadb-dump', [
            '--single-transaction', '--quick', '--hex-blob', '--skip-lock-tables', '--skip-comments', '--no-tablespaces',
            ...array_map(static fn (string $table): string => "--ignore-table-data={$database}.{$table}", self::WITHOUT_ROWS), $database,
        ]);
        $file->write($manifest->line());
        $trouble = '';
        // What has been written on is kept nowhere else.
        $dump->disableOutput()->run(static function (string $type, string $bytes) use ($file, &$trouble): void {
            if ($type === Process::OUT) {
                $file->write($bytes);
            } else {
                $trouble .= $bytes;
            }
        });
        if (! $dump->isSuccessful()) {
            throw new DomainError('failed', 'The database could not be read: '.trim($trouble), RefusedFor::Busy);
        }
        $file->write("\n".Manifest::END."\n");
        $file->close();

        return $manifest;
    }
}

<?php

declare(strict_types=1);

namespace App\Console;

use App\Store\DomainError;
use App\Work\Operations\Backup;
use Illuminate\Console\Command;

/** Keeps all there is in one file, while everybody goes on working. */
final class BackupCommand extends Command
{
    protected $signature = 'ledger:backup {file : such as ledger-2026-11-28.sql.gz; not there yet}';

    protected $description = 'Write a backup of the whole company, files included';

    public function handle(Backup $backup): int
    {
        $begun = microtime(true);
        $path = (string) $this->argument('file');
        try {
            $manifest = $backup->write($path);
        } catch (DomainError $refused) {
            $this->error($refused->getMessage());

            return self::FAILURE;
        }
        $size = round((int) filesize($path) / 1_000_000, 1);
        $this->line("{$manifest->entries} entries, {$size} MB, in ".round(microtime(true) - $begun, 1).' s.');
        $this->line('What is secret in it is encrypted by the key of the application (APP_KEY): keep that too, elsewhere.');

        return self::SUCCESS;
    }
}

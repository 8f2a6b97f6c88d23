<?php

declare(strict_types=1);

namespace App\Console;

use App\Store\DomainError;
use App\Work\Operations\Restore;
use Illuminate\Console\Command;

/** Brings a backup back, and looks whether all of it has come. */
final class RestoreCommand extends Command
{
    protected $signature = 'ledger:restore {file} {--over : the company that is there goes for it}';

    protected $description = 'Bring back what a backup kept, and verify it';

    public function handle(Restore $restore): int
    {
        try {
            $manifest = $restore->read((string) $this->argument('file'), (bool) $this->option('over'));
        } catch (DomainError $refused) {
            $this->error($refused->getMessage());

            return self::FAILURE;
        }
        $this->line("As it was on {$manifest->at}: {$manifest->entries} entries or more, and the ledger is as it was sealed.");

        return self::SUCCESS;
    }
}

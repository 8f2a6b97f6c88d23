<?php

declare(strict_types=1);

namespace App\Work\Operations;

use App\Models\Ledger\Entry;
use App\Models\Setup\CompanySettings;
use App\Store\DomainError;
use App\Store\Ledger\Verifier;
use App\Store\RefusedFor;
use Illuminate\Contracts\Console\Kernel;
use Illuminate\Database\Connection;
use Illuminate\Support\Facades\Schema;

/**
 * Brings back what a backup kept: into a database beside the one that is there, looks whether all of it has come as it was, and only then
 * lets it take the other's place. Until then nothing of what is there is touched.
 */
final readonly class Restore
{
    public function __construct(private Connection $db, private Kernel $artisan, private Verifier $verifier)
    {
    }

    /**
     * @param  bool  $over  whether a company that is there goes for it
     *
     * @throws DomainError before anything is touched, when the file is not whole or from a later version; and when not all has come
     */
    public function read(string $path, bool $over): Manifest
    {
        $manifest = self::whole($path);
        $known = array_map(static fn (string $file): string => basename($file, '.php'), glob(database_path('migrations/*.php')) ?: []);
        $unknown = array_diff($manifest->migrations, $known);
        if ($unknown !== []) {
            $message = 'The backup is of a later version ('.implode(', ', $unknown).'). Install that first.';
            throw new DomainError('newer', $message, RefusedFor::Conflict);
        }
        if (! $over && Schema::hasTable('company') && CompanySettings::query()->exists()) {
            $message = 'There is a company here. With --over it goes for what the backup kept.';
            throw new DomainError('wrong_state', $message, RefusedFor::Conflict);
        }
        $beside = new Beside($this->db);
        $beside->make();
        try {
            $beside->turnTo();
            $this->load($path);
            $this->artisan->call('migrate', ['--force' => true]);
            $this->look($manifest);
            $beside->turnBack();
            $beside->swap();
        } finally {
            $beside->turnBack();
            $beside->drop();
        }

        return $manifest;
    }

    private function load(string $path): void
    {
        $client = DatabaseTool::process($this->db, 'mariadb', ['--binary-mode', (string) $this->db->getDatabaseName()]);
        // It takes from the file what it has room for.
        $client->setInput(GzFile::read($path))->run();
        if (! $client->isSuccessful()) {
            throw new DomainError('failed', 'The database refused it: '.trim($client->getErrorOutput()), RefusedFor::Conflict);
        }
    }

    /** @throws DomainError */
    private function look(Manifest $manifest): void
    {
        $entries = Entry::query()->count();
        if ($entries < $manifest->entries) {
            throw new DomainError('incomplete', "Of {$manifest->entries} entries {$entries} have come.", RefusedFor::Conflict);
        }
        [$number, $seal] = explode(':', $manifest->checkpoint === '' ? ':' : $manifest->checkpoint);
        if (! $this->verifier->verify($seal === '' ? [] : [(int) $number => $seal])) {
            throw new DomainError('broken', $this->verifier->findings[0], RefusedFor::Conflict);
        }
    }

    /** @throws DomainError when it is no backup, only a part of one, or not what was written */
    public static function whole(string $path): Manifest
    {
        [$manifest, $begin, $end] = [null, '', ''];
        foreach (GzFile::read($path) as $bytes) {
            if ($manifest === null) {
                $begin .= $bytes;
                $manifest = Manifest::read((string) strtok($begin, "\n"));
                if ($manifest === null && str_contains($begin, "\n")) {
                    break;
                }
            }
            $end = substr($end.$bytes, -100);
        }
        if ($manifest === null) {
            throw new DomainError('no_backup', "{$path} is no backup of a ledger.", RefusedFor::Unreadable);
        }
        if (! str_ends_with($end, "\n".Manifest::END."\n")) {
            throw new DomainError('half', "{$path} is only a part of a backup: its end is missing.", RefusedFor::Unreadable);
        }

        return $manifest;
    }
}

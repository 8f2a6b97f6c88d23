<?php

declare(strict_types=1);

namespace Tests\App\Support;

use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;

/** A database that lives as long as one test: for a company that is only being opened, and for tables that are made on the way. */
trait OwnDatabase
{
    private string $usual = '';

    private string $own = '';

    protected function enterOwnDatabase(): void
    {
        $this->usual = (string) config(self::databaseKey());
        $this->own = 'vivid_ledger_own_'.getmypid().'_'.bin2hex(random_bytes(3));
        DB::statement("CREATE DATABASE `{$this->own}`");
        $this->turnTo($this->own);
        Artisan::call('migrate', ['--force' => true]);
    }

    protected function leaveOwnDatabase(): void
    {
        DB::statement("DROP DATABASE `{$this->own}`");
        $this->turnTo($this->usual);
    }

    private function turnTo(string $database): void
    {
        config([self::databaseKey() => $database]);
        DB::purge();
        $this->app['auth']->forgetGuards();
        $this->forgetEverything();
        $this->clockAt(self::NOW);
    }

    private static function databaseKey(): string
    {
        return 'database.connections.'.config('database.default').'.database';
    }
}

<?php

declare(strict_types=1);

namespace Tests\App\Operations;

use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;

/** A plain dump of the database, put back under another name: everything is there, and goes on from there. */
final class RestoreTest extends AppTestCase
{
    /** So many migrations made what the ledger stands in and stay; those after them can be taken back. */
    private const FOUNDATION = 5;

    private string $own;

    private string $copy;

    protected function setUp(): void
    {
        parent::setUp();
        $this->own = (string) config('database.connections.mariadb.database');
        $this->copy = "{$this->own}_copy";
        DB::statement("DROP DATABASE IF EXISTS `{$this->copy}`");
        DB::statement("CREATE DATABASE `{$this->copy}`");
        $socket = escapeshellarg((string) config('database.connections.mariadb.unix_socket'));
        exec(
            "bash -o pipefail -c 'mariadb-dump --no-defaults --socket={$socket} --user=root {$this->own} | mariadb --no-defaults "
                ."--socket={$socket} --user=root {$this->copy}' 2>&1",
            $said,
            $code,
        );
        self::assertSame(0, $code, implode("\n", $said));
    }

    protected function tearDown(): void
    {
        $this->use($this->own);
        DB::statement("DROP DATABASE IF EXISTS `{$this->copy}`");
        parent::tearDown();
    }

    protected function isRolledBack(): bool
    {
        return false;
    }

    public function test_a_dump_is_restored_and_goes_on_by_itself(): void
    {
        $count = static fn (string $database): array => array_map(
            static fn (string $table): int => (int) DB::scalar("SELECT COUNT(*) FROM `{$database}`.`{$table}`"),
            array_column(
                DB::select(
                    "SELECT table_name AS name FROM information_schema.tables WHERE table_schema = ? AND table_type = 'BASE TABLE' ORDER "
                        .'BY table_name',
                    [$database],
                ),
                'name',
                'name',
            ),
        );
        $before = $count($this->own);
        self::assertSame($before, $count($this->copy));
        self::assertGreaterThan(20, count($before));
        $this->use($this->copy);
        $first = $this->customer('In the copy');
        $second = $this->customer('In the copy too');
        self::assertSame($first['id'] + 1, $second['id']);
        self::assertSame($before, $count($this->own), 'the first database notices nothing');
        self::assertSame($before['records_customer'] + 2, $count($this->copy)['records_customer']);
    }

    public function test_a_rollback_does_what_it_says_or_says_that_it_cannot(): void
    {
        $this->use($this->copy);
        $columns = static fn (): array => array_column(DB::select('SHOW COLUMNS FROM scheduled_lines'), 'Field');
        $whole = $columns();
        $reversible = DB::table('migrations')->count() - self::FOUNDATION;
        Artisan::call('migrate:rollback', ['--step' => $reversible, '--force' => true]);
        self::assertSame([], array_intersect(['occasion', 'sort'], $columns()));
        Artisan::call('migrate', ['--force' => true]);
        self::assertEqualsCanonicalizing($whole, $columns());
        $this->customer('After going down and up');
        Artisan::call('migrate:rollback', ['--step' => $reversible, '--force' => true]);
        $done = DB::table('migrations')->count();
        try {
            Artisan::call('migrate:rollback', ['--step' => 1, '--force' => true]);
            self::fail('What cannot be rolled back says so.');
        } catch (\RuntimeException $cannot) {
            self::assertStringContainsString('cannot be rolled back', $cannot->getMessage());
        }
        self::assertSame($done, DB::table('migrations')->count());
    }

    private function use(string $database): void
    {
        config(['database.connections.mariadb.database' => $database]);
        DB::purge('mariadb');
        $this->app->forgetInstance('db.connection');
        $this->forgetEverything();
    }
}

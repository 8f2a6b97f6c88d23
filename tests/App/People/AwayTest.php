<?php

declare(strict_types=1);

namespace Tests\App\People;

use App\Models\Ledger\Entry;
use App\Store\LedgerConnection;
use App\Work\Outbound\DeliverLetters;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Symfony\Component\Process\Process;
use Tests\App\Support\AppTestCase;

/** The database is away for a while: whoever asks is told to come again, programs wait for it, and nothing is half done. */
final class AwayTest extends AppTestCase
{
    public static function tearDownAfterClass(): void
    {
        self::$prepared = false;
        parent::tearDownAfterClass();
    }

    protected function isRolledBack(): bool
    {
        return false;
    }

    public function test_whoever_asks_is_told_to_come_again(): void
    {
        $socket = config('database.connections.mariadb.unix_socket');
        $ines = $this->person('ines.okafor');
        config(['database.connections.mariadb.unix_socket' => '/no/such/socket', 'session.driver' => 'array']);
        DB::purge();
        $this->actingAs($ines, 'sanctum');
        try {
            $answer = $this->getJson('/api/records/ticket');
            $this->assertRefused($answer, 503, 'busy');
            self::assertSame('5', $answer->headers->get('Retry-After'));
            $this->get('/unsubscribe/somebody.'.str_repeat('a', 32))->assertNotFound();
            $this->post('/hook/'.str_repeat('a', 32))->assertStatus(503)->assertHeader('Retry-After', '5');
        } finally {
            config(['database.connections.mariadb.unix_socket' => $socket]);
            DB::purge();
        }
        $this->as('ines.okafor', 'GET', 'records/ticket')->assertOk();
    }

    /** What nobody waits for any more is not done behind their back. */
    public function test_what_takes_too_long_is_refused_and_leaves_nothing(): void
    {
        $customer = $this->customer();
        $entries = Entry::query()->count();
        config(['ledger.answer_within' => -1]);
        $late = $this->as('ines.okafor', 'PATCH', "records/customer/{$customer['id']}", ['version' => 1, 'values' => ['name' => 'Late']]);
        $this->assertRefused($late, 503, 'takes_too_long');
        $told = $this->as('ines.okafor', 'POST', "records/customer/{$customer['id']}/comments", ['text' => 'Late']);
        $this->assertRefused($told, 503, 'takes_too_long');
        self::assertSame(['Brine & Barrow Hotel', $entries], [
            DB::table('records_customer')->where('id', $customer['id'])->value('name'), Entry::query()->count(),
        ]);
        // Whoever is not asked by anybody takes their time.
        self::assertSame(1, $this->app->make(LedgerConnection::class)->transaction(
            static fn (): int => DB::table('records_customer')->where('id', $customer['id'])->update(['name' => 'By a worker']),
        ));
    }

    public function test_a_worker_of_the_queue_waits_for_it_and_goes_on(): void
    {
        $socket = (string) config('database.connections.mariadb.unix_socket');
        $way = sys_get_temp_dir().'/vivid-ledger-away-'.getmypid().'.sock';
        $queue = ['QUEUE_CONNECTION' => 'database', 'CACHE_STORE' => 'database', 'DB_SOCKET' => $way, 'LOG_CHANNEL' => 'null',
            'DB_DATABASE' => (string) getenv('DB_DATABASE')];
        $worker = new Process([PHP_BINARY, 'artisan', 'queue:work', '--queue=letters', '--sleep=0.1', '--quiet'], base_path(), $queue);
        config(['queue.default' => 'database']);
        $isDone = function () use ($worker): void {
            Queue::connection('database')->pushOn('letters', new DeliverLetters);
            $until = microtime(true) + 30;
            while (DB::table('jobs')->where('queue', 'letters')->exists()) {
                self::assertLessThan($until, microtime(true), 'it does what waits');
                self::assertTrue($worker->isRunning(), $worker->getErrorOutput());
                usleep(50_000);
            }
        };
        try {
            // It begins before the database does.
            $worker->start();
            usleep(2_500_000);
            self::assertTrue($worker->isRunning(), $worker->getErrorOutput());
            symlink($socket, $way);
            $isDone();
            // And it is cut off in the midst of its work, three times.
            for ($time = 0; $time < 3; $time++) {
                unlink($way);
                $own = (int) DB::scalar('SELECT CONNECTION_ID()');
                foreach (DB::select('SELECT id FROM information_schema.processlist WHERE db = ? AND id <> ?',
                    [(string) getenv('DB_DATABASE'), $own]) as $connection) {
                    DB::statement("KILL {$connection->id}");
                }
                usleep(700_000);
                symlink($socket, $way);
            }
            $isDone();
        } finally {
            $worker->stop(3);
            @unlink($way);
        }
    }
}

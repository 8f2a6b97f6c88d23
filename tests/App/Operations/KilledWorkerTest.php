<?php

declare(strict_types=1);

namespace Tests\App\Operations;

use App\Work\Timing\LineWorker;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\TimeTestCase;

/** Real worker processes, killed at any instant and started again: every line comes into ink once, and every date fires once. */
final class KilledWorkerTest extends TimeTestCase
{
    private const RECORDS = 240;

    private const KILLS = 7;

    public static function setUpBeforeClass(): void
    {
        parent::setUpBeforeClass();
        self::$prepared = false;
    }

    public static function tearDownAfterClass(): void
    {
        self::$prepared = false;
        parent::tearDownAfterClass();
    }

    protected function isRolledBack(): bool
    {
        return false;
    }

    public function test_nothing_is_lost_and_nothing_comes_twice(): void
    {
        // The processes keep real time, so what is due lies in the past.
        $this->clockAt('2020-01-01T08:00:00Z');
        $dated = $this->inForce([
            'name' => 'Dated', 'on' => 'ticket', 'when' => ['kind' => 'date', 'field' => 'due', 'amount' => 0, 'unit' => 'day'],
            'fires' => ['kind' => 'every_time'], 'lines' => [['kind' => 'comment', 'text' => 'dated']],
        ]);
        $later = $this->inForce(['name' => 'Later', 'on' => 'ticket', 'when' => ['kind' => 'created'],
            'fires' => ['kind' => 'once_per_record'], 'lines' => [
                [
                    'kind' => 'set_fields', 'set' => [['field' => 'hours', 'to' => ['kind' => 'add', 'amount' => '1']]],
                    'at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'hour'],
                ],
                [
                    'kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Look',
                    'at' => ['kind' => 'after', 'amount' => 2, 'unit' => 'hour'],
                ],
            ]]);
        $this->inForce([
            'name' => 'Follows', 'on' => 'ticket', 'when' => ['kind' => 'changed', 'fields' => ['hours']],
            'fires' => ['kind' => 'every_time'], 'lines' => [['kind' => 'comment', 'text' => 'follows']],
        ]);
        $customer = $this->customer()['id'];
        for ($count = 0; $count < self::RECORDS; $count++) {
            $this->ticket(['customer' => $customer, 'due' => '2020-01-05', 'hours' => '0']);
        }
        $lines = 2 * self::RECORDS;
        self::assertSame($lines, DB::table('scheduled_lines')->where('rule_id', $later)->count());

        $killed = 0;
        while (DB::table('scheduled_lines')->where(['rule_id' => $later, 'status' => 'pencilled'])->exists()
            || DB::table('entries')->where(['rule_id' => $dated, 'kind' => 'fired'])->count() < self::RECORDS) {
            $workers = [$this->worker(), $this->worker()];
            if ($killed < self::KILLS) {
                // Once something was done, and not at a moment that is always the same.
                $before = DB::table('entries')->count();
                $patience = microtime(true) + 30;
                while (DB::table('entries')->count() === $before && microtime(true) < $patience
                    && proc_get_status($workers[0])['running']) {
                    usleep(1000 * (3 + 7 * $killed));
                }
                proc_terminate($workers[$killed % 2], SIGKILL);
                $killed++;
            }
            foreach ($workers as $worker) {
                proc_close($worker);
            }
        }

        self::assertGreaterThan(0, $killed);
        self::assertSame(
            [$lines, $lines],
            [
                DB::table('scheduled_lines')->where(['rule_id' => $later, 'status' => 'inked'])->count(),
                DB::table('entries')->where(['rule_id' => $later, 'kind' => 'line'])->count(),
            ],
        );
        self::assertSame(['1.00'], DB::table('records_ticket')->distinct()->pluck('hours')->all());
        self::assertSame(self::RECORDS, DB::table('messages')->where('rule_id', $later)->count());
        self::assertSame(
            ['dated' => self::RECORDS, 'follows' => self::RECORDS],
            DB::table('comments')->pluck('text')->countBy()->sortKeys()->all(),
        );
        self::assertSame(0, DB::table('rule_runs')->where('status', 'in_play')->count());
    }

    /** The database cuts a worker off in the middle of its batches, again and again, as when it restarts; the worker goes on by itself. */
    public function test_a_worker_outlives_its_database_connections(): void
    {
        $this->clockAt('2020-01-01T08:00:00Z');
        $rule = $this->inForce([
            'name' => 'Cut off', 'on' => 'ticket', 'when' => ['kind' => 'changed', 'fields' => ['cost']],
            'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'comment', 'text' => 'cut', 'at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'hour']]],
        ]);
        $customer = $this->customer()['id'];
        for ($count = 0; $count < 120; $count++) {
            $this->change($this->ticket(['customer' => $customer])['record'], ['cost' => '1']);
        }
        $worker = proc_open(
            [PHP_BINARY, 'artisan', 'ledger:work'],
            [1 => ['file', '/dev/null', 'w'], 2 => ['file', '/dev/null', 'w']],
            $pipes,
            dirname(__DIR__, 3),
            ['DB_DATABASE' => (string) getenv('DB_DATABASE'), 'LOG_CHANNEL' => 'null'] + getenv(),
        );
        $own = (int) DB::scalar('SELECT CONNECTION_ID()');
        $cut = 0;
        $until = microtime(true) + 60;
        while (DB::table('scheduled_lines')->where(['rule_id' => $rule, 'status' => 'pencilled'])->exists() && microtime(true) < $until) {
            foreach ($cut < 3 ? DB::select('SELECT id FROM information_schema.processlist WHERE db = ? AND id <> '
                .'?', [(string) getenv('DB_DATABASE'), $own]) : [] as $connection) {
                DB::statement("KILL {$connection->id}");
                $cut++;
            }
            usleep(30_000);
        }
        self::assertTrue(proc_get_status($worker)['running']);
        proc_terminate($worker, SIGTERM);
        proc_close($worker);
        self::assertGreaterThan(0, $cut);
        self::assertSame(
            [120, 120],
            [
                DB::table('entries')->where(['rule_id' => $rule, 'kind' => 'line'])->count(),
                DB::table('scheduled_lines')->where(['rule_id' => $rule, 'status' => 'inked'])->count(),
            ],
        );
    }

    /** Whoever is just saving a record is not waited for, and its lines are not lost. */
    public function test_a_line_whose_record_is_held_waits_for_the_next_round(): void
    {
        $this->clockAt(self::NOW);
        $this->inForce(self::CHASE);
        $ticket = $this->written(['status' => 'waiting']);
        $this->clockAt('2026-11-28T08:40:00Z');
        $other = new \PDO(
            'mysql:unix_socket='.getenv('DB_SOCKET').';dbname='.getenv('DB_DATABASE'),
            'root',
            '',
            [\PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION],
        );
        $other->beginTransaction();
        $other->query("SELECT * FROM records_ticket WHERE id = {$ticket['id']} FOR UPDATE")->fetchAll();
        self::assertSame(0, $this->app->make(LineWorker::class)->work(10));
        self::assertSame('2026-11-27 08:40:00', $this->lines($ticket['id'])['1/1']);
        $other->rollBack();
        self::assertGreaterThan(0, $this->app->make(LineWorker::class)->work(10));
        self::assertSame('inked', $this->lines($ticket['id'])['1/1']);
    }

    /** @return resource */
    private function worker(): mixed
    {
        return proc_open(
            [PHP_BINARY, 'artisan', 'ledger:work', '--once'],
            [1 => ['file', '/dev/null', 'w'], 2 => ['file', '/dev/null', 'w']],
            $pipes,
            dirname(__DIR__, 3),
            ['DB_DATABASE' => (string) getenv('DB_DATABASE')] + getenv(),
        ) ?: throw new \LogicException('No worker.');
    }
}

<?php

declare(strict_types=1);

namespace Tests\App\Timing;

use App\Store\Setup\Company;
use App\Work\Timing\ClockTurner;
use Illuminate\Support\Facades\DB;
use Symfony\Component\Process\Process;
use Tests\App\Support\TimeTestCase;

/** The house clock is turned while all other programs run: for all of them it is one clock, and everything happens at its own second. */
final class TurnedBesideTest extends TimeTestCase
{
    private const REMINDERS = 150;

    /** @var list<Process> */
    private array $programs = [];

    public static function tearDownAfterClass(): void
    {
        self::$prepared = false;
        parent::tearDownAfterClass();
    }

    protected function tearDown(): void
    {
        foreach ($this->programs as $program) {
            $program->stop(3);
        }
        parent::tearDown();
    }

    protected function isRolledBack(): bool
    {
        return false;
    }

    public function test_everything_happens_at_its_own_second_and_no_clock_goes_back(): void
    {
        config(['ledger.clock_may_turn' => true]);
        $this->inForce([
            'name' => 'Written to', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'once_per_record'],
            'lines' => [
                ['kind' => 'send_message', 'to' => [['kind' => 'field', 'path' => 'contact']], 'subject' => 'Tomorrow', 'body' => 'Soon.',
                    'at' => ['kind' => 'after', 'amount' => 2, 'unit' => 'day']],
                ['kind' => 'comment', 'text' => 'A day on', 'at' => ['kind' => 'after', 'amount' => 3, 'unit' => 'day']],
            ],
        ]);
        $first = $this->written();
        for ($nth = 1; $nth < self::REMINDERS; $nth++) {
            $this->ticket(['customer' => $first['values']['customer']['id'] ?? $first['values']['customer'],
                'contact' => $first['values']['contact']['id'] ?? $first['values']['contact']]);
        }
        $company = $this->app->make(Company::class);
        $company->setClock(new \DateTimeImmutable('2026-11-24T08:40:00Z'));
        $letters = ['queue:work', '--queue=letters', '--sleep=0.1'];
        foreach ([['ledger:work', 'lines'], ['ledger:work', 'sweep'], $letters, ['ledger:work', 'turn']] as $command) {
            $this->programs[] = $program = new Process([PHP_BINARY, 'artisan', ...$command], base_path(), [
                'DB_DATABASE' => (string) getenv('DB_DATABASE'), 'CLOCK_MAY_TURN' => 'true', 'QUEUE_CONNECTION' => 'database',
                'CACHE_STORE' => 'database', 'LOG_CHANNEL' => 'null', 'MAIL_DSN' => 'null://null',
            ]);
            $program->start();
        }
        $turner = $this->app->make(ClockTurner::class);
        $id = $turner->begin(new \DateTimeImmutable('2026-11-28T00:00:00Z'), $this->person('ines.okafor')->id);
        $shown = [];
        $until = microtime(true) + 60;
        do {
            $shown[] = $company->clock()->getTimestamp();
            self::assertLessThan($until, microtime(true), 'the turn comes to its end');
            usleep(5_000);
        } while (DB::table('clock_turns')->where('id', $id)->value('status') === 'turning');
        $shown[] = $company->clock()->getTimestamp();
        $sorted = $shown;
        sort($sorted);
        self::assertSame($sorted, $shown, 'the clock never goes back');
        self::assertGreaterThanOrEqual(strtotime('2026-11-28T00:00:00Z'), $shown[count($shown) - 1]);

        self::assertSame(0, DB::table('scheduled_lines')->where('kind', '<>', 'task_due')->where('status', 'pencilled')->count());
        self::assertSame(
            ['2026-11-26 08:40:00' => self::REMINDERS, '2026-11-27 08:40:00' => self::REMINDERS],
            DB::table('entries')->where('kind', 'line')->pluck('at')->countBy()->sortKeys()->all(), 'each at its own second',
        );
        self::assertSame(
            ['2026-11-26 08:40:00' => self::REMINDERS],
            DB::table('messages')->where('subject', 'Tomorrow')->pluck('created_at')->countBy()->all(),
        );
        self::assertSame(0, DB::table('messages')->where('subject', 'Tomorrow')->where('status', 'waiting')->count(), 'they have left');
    }
}

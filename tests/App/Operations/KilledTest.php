<?php

declare(strict_types=1);

namespace Tests\App\Operations;

use App\Models\Lists\BulkJob;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Tests\App\Support\AppTestCase;
use Tests\App\Support\Imports;

/** Real workers are killed, without a word and wherever they are: what they began is brought to its end once. */
final class KilledTest extends AppTestCase
{
    use Imports;

    private const ROWS = 1200;

    private const KILLS = 4;

    public static function tearDownAfterClass(): void
    {
        // What was committed here must not be found by the tests that come after.
        self::$prepared = false;
        parent::tearDownAfterClass();
    }

    protected function isRolledBack(): bool
    {
        return false;
    }

    public function test_an_import_and_its_undo_whose_workers_are_killed_come_to_their_end_once(): void
    {
        Queue::fake();
        $this->inForce([
            'name' => 'Welcome', 'on' => 'customer', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Welcome {number}']],
        ]);
        $lines = array_map(static fn (int $n): string => "Customer {$n},basic,Jonas Pike", range(1, self::ROWS));
        $id = $this->begun("name,plan,owner\n".implode("\n", $lines)."\n", true);
        $this->killed($id, 'saved');
        $job = BulkJob::query()->findOrFail($id);
        self::assertSame(['done', self::ROWS, 0], [$job->status->value, $job->saved, $job->refused]);
        $count = static fn (string $table): int => DB::table($table)->count();
        self::assertSame([self::ROWS, self::ROWS, self::ROWS], [
            DB::table('records_customer')->distinct()->count('name'), $count('records_customer'), $count('tasks'),
        ]);
        self::assertSame([self::ROWS, self::ROWS], [
            DB::table('entries')->where('kind', 'created')->count(), DB::table('entries')->where('kind', 'fired')->count(),
        ]);

        $this->as('ines.okafor', 'POST', "bulk/{$id}/undo")->assertOk();
        $this->killed($id, 'undone');
        self::assertSame([0, 0], [$count('records_customer'), DB::table('tasks')->where('status', 'open')->count()]);
        $job->refresh();
        self::assertSame(['undone', self::ROWS], [$job->status->value, $job->undone]);
        self::assertSame(self::ROWS, DB::table('entries')->where('kind', 'deleted')->count());
    }

    /** Kills a worker each time it has come further, and lets the last one come to the end. */
    private function killed(int $id, string $counted): void
    {
        $reached = static fn (): int => (int) BulkJob::query()->whereKey($id)->value($counted);
        $killed = 0;
        for ($kills = 0; $kills <= self::KILLS; $kills++) {
            // The lease of one that died runs out by the clock on the wall, which no test waits for.
            BulkJob::query()->whereKey($id)->update(['leased_until' => null]);
            $before = $reached();
            $worker = proc_open(
                [PHP_BINARY, 'tests/App/Support/go_through_bulk.php'], [1 => ['file', '/dev/null', 'w'], 2 => ['pipe', 'w']],
                $pipes, dirname(__DIR__, 3), ['DB_DATABASE' => (string) getenv('DB_DATABASE')] + getenv(),
            );
            self::assertIsResource($worker);
            while ($kills < self::KILLS && $reached() === $before && proc_get_status($worker)['running']) {
                usleep(2000);
            }
            if ($kills < self::KILLS) {
                // Not at once behind a piece, but somewhere in the next.
                usleep(7000 * (1 + $kills));
                $killed += (int) proc_get_status($worker)['running'];
                proc_terminate($worker, SIGKILL);
            }
            $errors = stream_get_contents($pipes[2]);
            proc_close($worker);
            self::assertSame('', $errors);
        }
        self::assertGreaterThan(0, $killed, 'it was killed while it was at work');
    }
}

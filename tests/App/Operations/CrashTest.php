<?php

declare(strict_types=1);

namespace Tests\App\Operations;

use App\Store\Actor;
use App\Store\Records\SaveRecord;
use App\Store\Tasks\TaskStore;
use App\Store\Types\SchemaStore;
use App\Work\Rules\RulePublisher;
use App\Work\Timing\LineWorker;
use App\Work\Timing\Sweep;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;

/** The power goes out after every single statement in turn: nothing of the work is left, and the next try does all of it. */
final class CrashTest extends AppTestCase
{
    /** How many more statements may run; null for any number. */
    private ?int $left = null;

    protected function setUp(): void
    {
        parent::setUp();
        DB::listen(function (QueryExecuted $query): void {
            if ($this->left !== null && $this->left-- <= 0) {
                throw new \RuntimeException('The power went out.');
            }
        });
    }

    public function test_creating_a_record(): void
    {
        $this->inForce($this->demoFile('010-urgent-ticket'));
        $this->inForce($this->demoFile('030-waiting-since'));
        $values = [
            'subject' => 'Wilting', 'customer' => $this->customer()['id'], 'priority' => 'urgent', 'status' => 'waiting',
            'owner' => $this->person('bram.castellan')->id,
        ];

        $this->crashesLeaveNothing(
            fn () => $this->app->make(SaveRecord::class)->create(
                $this->app->make(SchemaStore::class)->schema()->types['ticket'],
                $values,
                new Actor(1),
            ),
        );
        self::assertSame(
            [2, 2, 2],
            [DB::table('tasks')->count(), DB::table('guard_keys')->count(), DB::table('entries')->where('kind', 'fired')->count()],
        );
    }

    public function test_changing_a_record(): void
    {
        $this->inForce($this->demoFile('010-urgent-ticket'));
        $ticket = $this->ticket()['record'];

        $this->crashesLeaveNothing(
            fn () => $this->app->make(SaveRecord::class)->change(
                $this->app->make(SchemaStore::class)->schema()->types['ticket'],
                $ticket['id'],
                1,
                ['priority' => 'urgent'],
                new Actor(1),
            ),
        );
        self::assertSame(
            ['urgent', 'needed', 2],
            array_values((array) DB::selectOne('SELECT priority, review, version FROM records_ticket')),
        );
    }

    public function test_completing_a_task_and_putting_into_ink(): void
    {
        $this->inForce($this->demoFile('010-urgent-ticket'));
        $this->ticket(['priority' => 'urgent']);
        $this->ticket(['priority' => 'urgent']);
        $task = (int) DB::table('tasks')->value('id');
        $this->crashesLeaveNothing(fn () => $this->app->make(TaskStore::class)->complete($task, 1));
        $this->crashesLeaveNothing(fn () => $this->app->make(TaskStore::class)->reopen($task, 1));
        $this->clockAt('2026-12-01T00:00:00Z');
        $this->crashesLeaveNothing(fn () => $this->app->make(LineWorker::class)->work(10));

        self::assertSame(
            [1, 1, 2],
            array_map(
                static fn (string $kind): int => DB::table('entries')->where('kind', $kind)->count(),
                ['task_done', 'task_reopened', 'task_due'],
            ),
        );
    }

    public function test_lines_in_time_a_sweep_and_a_moved_date(): void
    {
        $this->inForce(['name' => 'Later', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'once_per_record'],
            'lines' => [
                ['kind' => 'comment', 'text' => 'x', 'at' => ['kind' => 'every', 'amount' => 1, 'unit' => 'day', 'times' => 3]],
                [
                    'kind' => 'set_fields', 'set' => [['field' => 'review', 'to' => ['kind' => 'value', 'value' => 'needed']]],
                    'at' => ['kind' => 'date', 'field' => 'due', 'amount' => 0, 'unit' => 'day'],
                ],
            ], 'until' => ['kind' => 'is', 'field' => 'status', 'value' => 'closed']]);
        $this->inForce([
            'name' => 'Due', 'on' => 'ticket', 'when' => ['kind' => 'date', 'field' => 'due', 'amount' => 0, 'unit' => 'day'],
            'fires' => ['kind' => 'every_time'], 'lines' => [['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Do']],
        ]);
        $ticket = $this->ticket(['due' => '2026-11-25'])['record'];
        $type = $this->app->make(SchemaStore::class)->schema()->types['ticket'];
        $save = fn (int $version, array $values) => $this->app->make(SaveRecord::class)->change(
            $type,
            $ticket['id'],
            $version,
            $values,
            new Actor(1),
        );
        $this->crashesLeaveNothing(fn () => $save(1, ['due' => '2026-11-26']));
        $this->clockAt('2026-11-26T12:00:00Z');
        $this->crashesLeaveNothing(fn () => $this->app->make(Sweep::class)->work());
        $this->crashesLeaveNothing(fn () => $this->app->make(LineWorker::class)->work(10));
        self::assertSame(
            [1, 2, 1],
            [
                DB::table('tasks')->count(), DB::table('entries')->where('kind', 'line')->count(),
                DB::table('scheduled_lines')->where(['status' => 'pencilled', 'kind' => 'comment'])->count(),
            ],
        );
        $this->crashesLeaveNothing(fn () => $save(3, ['status' => 'closed']));
        self::assertSame(['over'], DB::table('rule_runs')->pluck('status')->all());
    }

    public function test_publishing_a_rule(): void
    {
        $rule = $this->as('ines.okafor', 'POST', 'rules', ['file' => $this->demoFile('010-urgent-ticket')])->json('id');
        $this->crashesLeaveNothing(fn () => $this->app->make(RulePublisher::class)->publish($rule, 1, 1));

        self::assertSame([1, 1], [DB::table('rule_pages')->count(), DB::table('rule_spells')->count()]);
        self::assertCount(1, $this->ticket(['priority' => 'urgent'])['fired']);
    }

    private function crashesLeaveNothing(callable $work): void
    {
        $before = $this->everything();
        for ($statements = 0; ; $statements++) {
            $this->left = $statements;
            try {
                $work();
            } catch (\RuntimeException) {
                // told to the caller
            }
            $crashed = $this->left < 0;
            $this->left = null;
            if (! $crashed) {
                self::assertGreaterThan(3, $statements);
                self::assertNotSame($before, $this->everything());

                return;
            }
            self::assertSame($before, $this->everything(), "after {$statements} statements");
        }
    }

    /** A digest of all that is kept. */
    private function everything(): string
    {
        $all = '';
        foreach (['records_ticket', 'entries', 'field_history', 'guard_keys', 'tasks', 'scheduled_lines', 'rules', 'rule_pages',
            'rule_spells', 'rule_watches', 'rule_runs', 'sweeps'] as $table) {
            $all .= json_encode(DB::select("SELECT * FROM {$table} ORDER BY 1, 2, 3"), JSON_THROW_ON_ERROR);
        }

        return md5($all);
    }
}

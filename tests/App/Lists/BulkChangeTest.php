<?php

declare(strict_types=1);

namespace Tests\App\Lists;

use App\Evidence\Lists\BulkWorker;
use App\Evidence\Lists\GoThroughBulk;
use App\Models\Import\RowResult;
use App\Models\Lists\BulkJob;
use App\Models\Lists\BulkRow;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Tests\App\Support\AppTestCase;

/** A selection is changed together: tried on paper first, stopped in the middle, gone on with, and taken back. */
final class BulkChangeTest extends AppTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        Queue::fake();
        $this->clockAt('2026-11-24T09:00:00Z');
        $this->inForce([
            'name' => 'Ring about it', 'on' => 'ticket', 'when' => ['kind' => 'changed', 'fields' => ['priority']],
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'priority', 'value' => 'urgent']]],
            'fires' => ['kind' => 'every_time'], 'lines' => [
                ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Ring about {number}'],
                ['kind' => 'set_fields', 'set' => [['field' => 'escalate', 'to' => ['kind' => 'value', 'value' => true]]]],
            ],
        ]);
        $this->inForce([
            'name' => 'Not the dear ones', 'on' => 'ticket', 'when' => ['kind' => 'changed'],
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'over', 'field' => 'cost', 'value' => '100']]],
            'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'refuse', 'field' => 'priority', 'message' => '{number} costs too much.']],
        ]);
    }

    public function test_it_is_tried_on_paper_before_it_is_done(): void
    {
        $ids = $this->tickets(4, ['cost' => '5']);
        $dear = $this->ticket(['cost' => '500'])['record'];
        $urgent = $this->ticket(['priority' => 'urgent'])['record']['id'];
        $before = $this->counts();
        $preview = $this->as('ines.okafor', 'POST', 'bulk/preview', [
            'recordType' => 'ticket', 'records' => [...$ids, $dear['id'], $urgent], 'values' => ['priority' => 'urgent'],
        ])->assertOk()->json();
        self::assertSame([6, 6, 1], [$preview['total'], $preview['tried'], $preview['same']]);
        self::assertSame([['Ring about it', 4]], array_map(
            static fn (array $rule): array => [$rule['name'], $rule['count']], $preview['rules'],
        ));
        self::assertSame([['said' => "{$dear['number']} costs too much.", 'count' => 1]], $preview['refused']);
        self::assertSame($before, $this->counts(), 'nothing was written');

        $wrong = $this->as('ines.okafor', 'POST', 'bulk/preview', [
            'recordType' => 'ticket', 'records' => $ids, 'values' => ['priority' => 'nonsense'],
        ])->assertOk()->json('refused');
        self::assertSame(4, $wrong[0]['count']);
    }

    public function test_all_that_fit_are_changed_stopped_gone_on_with_and_taken_back(): void
    {
        $ids = $this->tickets(230, ['topic' => 'watering']);
        $dear = $this->ticket(['topic' => 'watering', 'cost' => '500'])['record'];
        $other = $this->ticket(['topic' => 'invoice'])['record']['id'];
        $filter = json_encode(['kind' => 'is', 'field' => 'topic', 'value' => 'watering'], JSON_THROW_ON_ERROR);
        $job = $this->as('ines.okafor', 'POST', 'bulk', [
            'recordType' => 'ticket', 'filter' => $filter, 'search' => '', 'values' => ['priority' => 'urgent'],
        ])->assertCreated()->json();
        self::assertSame([231, 0, 'waiting'], [$job['total'], $job['done'], $job['status']]);

        // A piece is done, then somebody stops it.
        $this->work(0.0);
        $this->as('bram.castellan', 'POST', "bulk/{$job['id']}/stop")->assertForbidden();
        $stopped = $this->as('ines.okafor', 'POST', "bulk/{$job['id']}/stop")->assertOk()->json();
        self::assertSame([100, 100, 'stopped'], [$stopped['done'], $stopped['saved'], $stopped['status']]);
        self::assertSame(0, $this->app->make(BulkWorker::class)->work(5.0), 'a stopped one waits for nobody');
        self::assertSame(100, DB::table('records_ticket')->where('priority', 'urgent')->count());
        $this->as('ines.okafor', 'POST', "bulk/{$job['id']}/stop")->assertStatus(409);

        // Begun again, it does the rest and nothing twice.
        $this->as('ines.okafor', 'POST', "bulk/{$job['id']}/go-on")->assertOk();
        $this->work(60.0);
        $done = $this->as('ines.okafor', 'GET', "bulk/{$job['id']}")->assertOk()->json();
        self::assertSame([231, 230, 1, 'done'], [$done['done'], $done['saved'], $done['refused'], $done['status']]);
        self::assertSame([$dear['number'], "{$dear['number']} costs too much."],
            [$done['problems'][0]['recordNumber'], $done['problems'][0]['said']]);
        self::assertSame([230, 230], [
            DB::table('records_ticket')->where('priority', 'urgent')->where('escalate', true)->count(),
            DB::table('tasks')->where('status', 'open')->count(),
        ], 'each was answered once');
        self::assertSame('normal', DB::table('records_ticket')->where('id', $other)->value('priority'));

        // Somebody has changed one since: that stays.
        $mine = ['version' => 2, 'values' => ['priority' => 'low']];
        $this->as('bram.castellan', 'PATCH', "records/ticket/{$ids[0]}", $mine)->assertOk();
        $this->as('ines.okafor', 'POST', "bulk/{$job['id']}/undo")->assertOk();
        $this->work(120.0);
        $undone = $this->as('ines.okafor', 'GET', "bulk/{$job['id']}")->assertOk()->json();
        self::assertSame(['undone', 229], [$undone['status'], $undone['undone']]);
        self::assertSame('Somebody has changed Priority since.', $undone['problems'][0]['said']);
        self::assertSame(0, DB::table('records_ticket')->where('priority', 'urgent')->count());
        self::assertSame('low', DB::table('records_ticket')->where('id', $ids[0])->value('priority'));
        self::assertSame(0, DB::table('tasks')->where('status', 'open')->count(), 'what the rule gave is cancelled with it');
        self::assertSame(229, BulkRow::query()->where('job_id', $job['id'])->where('result', RowResult::Undone)->count());
    }

    /** A queue that forgets, as one in memory does, delays it by a minute and no more. */
    public function test_one_whose_job_is_lost_is_gone_on_with(): void
    {
        $ids = $this->tickets(3, ['topic' => 'watering']);
        $job = $this->as('ines.okafor', 'POST', 'bulk', [
            'recordType' => 'ticket', 'records' => $ids, 'values' => ['topic' => 'invoice'],
        ])->assertCreated()->json('id');
        Queue::fake();
        self::assertSame(0, Artisan::call('schedule:run'));
        $again = Queue::pushed(GoThroughBulk::class)->sole();
        $this->app->call([$again, 'handle']);
        self::assertSame('done', $this->as('ines.okafor', 'GET', "bulk/{$job}")->assertOk()->json('status'));
        self::assertSame(3, DB::table('records_ticket')->where('topic', 'invoice')->count());
    }

    public function test_a_worker_that_dies_has_done_whole_pieces_only(): void
    {
        $ids = $this->tickets(150);
        $job = $this->as('ines.okafor', 'POST', 'bulk', [
            'recordType' => 'ticket', 'records' => $ids, 'values' => ['priority' => 'urgent'],
        ])->assertCreated()->json();
        $this->work(0.0);
        // The second piece breaks at its end.
        $count = 0;
        DB::listen(static function () use (&$count): void {
            $count++;
            if ($count === 12) {
                throw new \RuntimeException('the power went');
            }
        });
        try {
            $this->app->make(BulkWorker::class)->work(5.0);
            self::fail('It was to break.');
        } catch (\RuntimeException $broken) {
            self::assertSame('the power went', $broken->getMessage());
        }
        $left = BulkJob::query()->findOrFail($job['id']);
        self::assertSame([100, 100], [$left->done, DB::table('records_ticket')->where('priority', 'urgent')->count()]);
        self::assertSame(0, $this->app->make(BulkWorker::class)->work(5.0), 'it is leased still');
        BulkJob::query()->update(['leased_until' => '2020-01-01 00:00:00']);
        $this->work(60.0);
        self::assertSame([150, 150], [
            BulkJob::query()->findOrFail($job['id'])->saved, DB::table('tasks')->where('status', 'open')->count(),
        ]);
    }

    public function test_nothing_is_begun_on_nothing_or_by_whoever_may_not(): void
    {
        $ids = $this->tickets(1);
        $this->as('ines.okafor', 'POST', 'bulk', ['recordType' => 'ticket', 'records' => [], 'values' => ['priority' => 'low']])
            ->assertStatus(422);
        $this->as('odile.march', 'POST', 'bulk', ['recordType' => 'ticket', 'records' => $ids, 'values' => ['priority' => 'low']])
            ->assertForbidden();
        self::assertSame(0, BulkJob::query()->count());
    }

    private function work(float $seconds): void
    {
        $this->app->make(BulkWorker::class)->work($seconds);
    }

    /**
     * @param  array<string, mixed>  $values
     * @return list<int>
     */
    private function tickets(int $count, array $values = []): array
    {
        $customer = $this->customer()['id'];
        $owner = $this->person('bram.castellan')->id;
        $rows = array_fill(0, $count, ['values' => $values + [
            'subject' => 'Ficus', 'customer' => $customer, 'priority' => 'normal', 'status' => 'open', 'owner' => $owner,
        ]]);
        $ids = [];
        foreach (array_chunk($rows, 200) as $some) {
            $saved = $this->as('ines.okafor', 'POST', 'records/ticket/several', ['records' => $some])->assertOk()->json();
            array_push($ids, ...array_map(static fn (array $one): int => $one['saved']['record']['id'], $saved));
        }

        return $ids;
    }

    /** @return list<int> */
    private function counts(): array
    {
        return array_map(static fn (string $table): int => DB::table($table)->count(), ['entries', 'tasks', 'field_history', 'bulk_jobs']);
    }
}

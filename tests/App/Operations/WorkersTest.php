<?php

declare(strict_types=1);

namespace Tests\App\Operations;

use App\Models\Operations\WorkerProcess;
use App\Store\LedgerConnection;
use Illuminate\Database\Events\TransactionCommitting;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Event;
use Tests\App\Support\TimeTestCase;

/** Workers whose work cannot be done: one bad thing never holds up the others, and is seen and tried again. */
final class WorkersTest extends TimeTestCase
{
    private const LATER = ['name' => 'Later', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
        'lines' => [
            [
                'kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Look: {changes}', 'due' => null,
                'at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'day'],
            ],
        ]];

    public function test_a_bad_line_is_set_aside_and_the_others_are_done(): void
    {
        $this->inForce(self::LATER);
        $customer = $this->customer()['id'];
        $tickets = array_map(
            fn (int $count): int => $this->ticket(['customer' => $customer, 'subject' => "No {$count}"])['record']['id'],
            range(1, 5),
        );
        $made = DB::table('rule_runs')->where('record_id', $tickets[2])->value('made');
        DB::table('rule_runs')->where('record_id', $tickets[2])->update(['made' => '{"x":{"y":1}}']);
        $this->passTo('2026-11-26T12:00:00Z');
        self::assertSame(
            [$tickets[0], $tickets[1], $tickets[3], $tickets[4]],
            DB::table('tasks')->orderBy('record_id')->pluck('record_id')->all(),
        );
        $aside = $this->as('tomas.weld', 'GET', 'lines/set-aside')->assertOk()->json();
        self::assertSame([$tickets[2]], array_column($aside, 'recordId'));
        self::assertStringStartsWith('it could not be done: ', $aside[0]['note']);
        self::assertContains('line_failed', $this->kinds($tickets[2]));
        $this->as('tomas.weld', 'POST', "lines/{$aside[0]['id']}/again")->assertNoContent();
        $this->workNow();
        self::assertCount(1, $this->as('tomas.weld', 'GET', 'lines/set-aside')->json(), 'what is still broken is set aside again');
        DB::table('rule_runs')->where('record_id', $tickets[2])->update(['made' => $made]);
        $this->as('tomas.weld', 'POST', "lines/{$aside[0]['id']}/again")->assertNoContent();
        $this->workNow();
        self::assertSame(1, DB::table('tasks')->where('record_id', $tickets[2])->count());
        self::assertSame([], $this->as('tomas.weld', 'GET', 'lines/set-aside')->json());
        $this->assertRefused($this->as('tomas.weld', 'POST', "lines/{$aside[0]['id']}/again"), 409, 'wrong_state');
    }

    public function test_what_a_sweep_starts_and_another_rule_refuses_leaves_an_entry(): void
    {
        $refuse = $this->inForce([
            'name' => 'Closed needs hours', 'on' => 'ticket', 'when' => [
                'kind' => 'changed', 'fields' => ['status'],
            ], 'fires' => ['kind' => 'every_time'],
            'onlyIf' => [
                'kind' => 'all',
                'of' => [['kind' => 'is', 'field' => 'status', 'value' => 'closed'], ['kind' => 'is_empty', 'field' => 'hours']],
            ],
            'lines' => [['kind' => 'refuse', 'message' => 'Fill in the hours first.']],
        ]);
        $closes = $this->inForce([
            'name' => 'Closes when due', 'on' => 'ticket', 'fires' => ['kind' => 'every_time'],
            'when' => ['kind' => 'date', 'field' => 'due', 'amount' => 0, 'unit' => 'day', 'time' => '09:00'],
            'lines' => [['kind' => 'set_fields', 'set' => [['field' => 'status', 'to' => ['kind' => 'value', 'value' => 'closed']]]]],
        ]);
        $empty = $this->ticket(['due' => '2026-11-26'])['record']['id'];
        $filled = $this->ticket(['due' => '2026-11-26', 'hours' => '2'])['record']['id'];
        $this->passTo('2026-11-27T12:00:00Z');
        self::assertSame(
            ['open', 'closed'],
            [
                DB::table('records_ticket')->where('id', $empty)->value('status'),
                DB::table('records_ticket')->where('id', $filled)->value('status'),
            ],
        );
        $told = DB::table('entries')->where(['kind' => 'refused', 'record_id' => $empty])->get();
        self::assertSame([$refuse], $told->pluck('rule_id')->all(), 'one entry, and no second try that nobody asked for');
        self::assertSame(1, DB::table('entries')->where(['kind' => 'fired', 'rule_id' => $closes, 'record_id' => $filled])->count());
    }

    public function test_ids_come_in_the_steps_of_the_database_node(): void
    {
        foreach (DB::table('record_types')->pluck('name') as $type) {
            $made = (array) DB::selectOne("SHOW CREATE SEQUENCE `records_{$type}_ids`");
            self::assertStringContainsStringIgnoringCase('increment by 0', (string) $made['Create Table']);
            $columns = collect(DB::select("SHOW COLUMNS FROM `records_{$type}`"))->keyBy('Field');
            self::assertNull($columns['id']->Default, 'and no table takes them by itself');
        }
    }

    public function test_what_is_too_much_at_once_says_how_much_was_left(): void
    {
        $this->inForce(['name' => 'All tickets', 'on' => 'customer', 'when' => [
            'kind' => 'changed', 'fields' => ['plan'],
        ], 'fires' => ['kind' => 'every_time'], 'lines' => [
            [
                'kind' => 'set_fields', 'on' => 'ticket.customer',
                'set' => [['field' => 'review', 'to' => ['kind' => 'value', 'value' => 'needed']]],
            ],
        ]]);
        $watch = $this->inForce([
            'name' => 'Customers watched', 'on' => 'ticket',
            'when' => ['kind' => 'related', 'related' => 'customer', 'happening' => 'changed'],
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'priority', 'value' => 'high']]],
            'fires' => ['kind' => 'every_time'], 'lines' => [['kind' => 'comment', 'text' => 'x']],
        ]);
        $customer = $this->customer();
        $first = (int) DB::table('records_ticket')->max('id') + 1;
        foreach (array_chunk(range($first, $first + 2004), 500) as $ids) {
            DB::table('records_ticket')->insert(array_map(
                static fn (int $id): array => [
                    'id' => $id, 'version' => 1, 'subject' => "No {$id}", 'customer' => $customer['id'], 'status' => 'open',
                    'priority' => 'low', 'created_at' => '2026-01-01', 'updated_at' => '2026-01-01',
                ],
                $ids,
            ));
        }
        $this->change($customer, ['plan' => 'basic']);
        $fired = json_decode(
            (string) DB::table('entries')->where(['kind' => 'fired', 'record_id' => $customer['id']])->value('data'),
            true,
        );
        self::assertSame(
            [['kind' => 'cut_off', 'label' => 'Tickets', 'done' => 2000, 'of' => 2005]],
            array_values(array_filter($fired['did'], static fn (array $did): bool => $did['kind'] === 'cut_off')),
        );
        $cut = (array) DB::table('entries')->where(['kind' => 'cut_off', 'rule_id' => $watch])->first(['record_id', 'data']);
        self::assertSame(
            [$customer['id'], 2000, 2005],
            [$cut['record_id'], json_decode($cut['data'], true)['done'], json_decode($cut['data'], true)['of']],
        );
    }

    public function test_a_commit_that_fails_is_rolled_back_and_done_again(): void
    {
        DB::rollBack();
        $db = $this->app->make(LedgerConnection::class);
        $db->statement('CREATE TABLE IF NOT EXISTS trial_of_commits (n INT)');
        try {
            $failures = 2;
            Event::listen(TransactionCommitting::class, static function () use (&$failures): void {
                if ($failures-- > 0) {
                    $lost = new \PDOException(
                        'SQLSTATE[40001]: Serialization failure: 1213 Deadlock found when trying to get lock; try restarting transaction',
                    );
                    $lost->errorInfo = ['40001', 1213, 'Deadlock found'];
                    throw $lost;
                }
            });
            $tries = 0;
            $db->transaction(static function () use ($db, &$tries): void {
                $tries++;
                $db->insert('INSERT INTO trial_of_commits VALUES (1)');
            });
            self::assertSame([3, 1, 0], [$tries, (int) $db->scalar('SELECT COUNT(*) FROM trial_of_commits'), $db->transactionLevel()]);
            $db->transaction(static fn (): bool => $db->insert('INSERT INTO trial_of_commits VALUES (2)'));
            self::assertSame(2, (int) $db->scalar('SELECT COUNT(*) FROM trial_of_commits'), 'and the connection goes on');
            // One that always fails is told, and leaves nothing behind.
            $failures = 100;
            $before = $this->as('ines.okafor', 'POST', 'records/customer', ['values' => ['name' => 'Never']]);
            $this->assertRefused($before, 503, 'busy');
            $failures = 0;
            self::assertSame([0, 0], [DB::table('records_customer')->where('name', 'Never')->count(), $db->transactionLevel()]);
        } finally {
            Event::forget(TransactionCommitting::class);
            $db->statement('DROP TABLE trial_of_commits');
            DB::beginTransaction();
        }
    }

    public function test_whoever_watches_over_the_machine_is_told_what_is_the_matter(): void
    {
        $this->get('/up')->assertOk()->assertExactJson(['up' => true]);
        WorkerProcess::factory()->create(['kind' => 'clock', 'beat_at' => gmdate('Y-m-d H:i:s', time() - 600)]);
        $this->get('/up')->assertStatus(503)->assertExactJson(['up' => false, 'trouble' => 'The clock process has stopped.']);
    }
}

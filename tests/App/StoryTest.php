<?php

declare(strict_types=1);

namespace Tests\App;

use App\Work\Timing\LineWorker;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;

/** The whole way through the API: a rule written, in force, fired, explained, and its task done. */
final class StoryTest extends AppTestCase
{
    public function test_a_rule_fires_once_and_is_explained(): void
    {
        $rule = $this->inForce($this->demoFile('010-urgent-ticket'));
        $quiet = $this->ticket();
        self::assertSame([], $quiet['fired']);

        // It becomes urgent: the field is on what the save returns, the lead has a task, the ledger an entry.
        $saved = $this->change($quiet['record'], ['priority' => 'urgent']);
        self::assertSame(['needed', 2], [$saved['record']['values']['review'], $saved['record']['version']]);
        self::assertSame('Needed', $saved['record']['shown']['review']);
        self::assertSame(
            [['entry' => $saved['fired'][0]['entry'], 'rule' => $rule, 'name' => 'Urgent ticket, tell the lead']],
            $saved['fired'],
        );
        $number = $saved['record']['number'];
        $tasks = $this->as('priya.lindqvist', 'GET', 'tasks')->assertOk()->json();
        self::assertSame(
            ["Look in on {$number}: Ficus wall wilting", '2026-11-24T12:40:00Z', 1],
            [$tasks['tasks'][0]['title'], $tasks['tasks'][0]['dueAt'], $tasks['mineOpen']],
        );

        $entry = $this->as('odile.march', 'GET', "ledger/{$saved['fired'][0]['entry']}")->assertOk()->json();
        self::assertSame(['fired', $saved['entry']], [$entry['entry']['kind'], $entry['entry']['cause']]);
        self::assertSame('Priority changed from Normal to Urgent', $entry['entry']['data']['why']['trigger']);
        self::assertSame(
            [['Priority is Urgent', 'Urgent', true], ['Status is not Closed', 'Open', true]],
            array_map(
                static fn (array $part): array => [$part['text'], $part['seen'], $part['held']],
                $entry['entry']['data']['why']['conditions']['parts'],
            ),
        );
        self::assertStringContainsString(
            'owner Bram Castellan → manager Priya Lindqvist',
            json_encode($entry['entry']['data']['did'], JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR),
        );
        self::assertSame('changed', $entry['causes'][0]['kind']);

        // Another field changes: nothing fires, and the ledger can say why not.
        $again = $this->change($saved['record'], ['hours' => '1.5']);
        self::assertSame([], $again['fired']);
        $answers = $this->as('odile.march', 'GET', "ledger/{$again['entry']}/answers?rule={$rule}")->assertOk()->json();
        self::assertSame(['no_turn', null], [$answers[0]['verdict']['reason'], $answers[0]['firedIn']]);
        self::assertStringContainsString('already held before this change', $answers[0]['verdict']['sentence']);
        self::assertSame(
            $saved['fired'][0]['entry'],
            $this->as('odile.march', 'GET', "ledger/{$saved['entry']}/answers")->json('0.firedIn'),
        );

        // The same values again: nothing is saved at all.
        $same = $this->change($again['record'], ['hours' => '1.50', 'priority' => 'urgent']);
        self::assertSame([null, $again['record']['version']], [$same['entry'], $same['record']['version']]);

        // It leaves the condition and comes back: it fires again.
        $left = $this->change($same['record'], ['priority' => 'low']);
        $back = $this->change($left['record'], ['priority' => 'urgent']);
        self::assertSame([[], 1], [$left['fired'], count($back['fired'])]);

        // The lead does the task, and takes that back.
        $task = $tasks['tasks'][0]['id'];
        $this->as(
            'priya.lindqvist',
            'POST',
            "tasks/{$task}/complete",
        )->assertOk()->assertJsonPath('status', 'done')->assertJsonPath('doneBy', 'Priya Lindqvist');
        $account = $this->as('bram.castellan', 'GET', "records/ticket/{$back['record']['id']}/account")->assertOk()->json();
        self::assertCount(1, $account['ahead'], 'only the second task is still pencilled in');
        self::assertSame(
            ['task_done', 'fired', 'changed', 'changed', 'changed', 'fired', 'changed', 'created'],
            array_column($account['entries'], 'kind'),
        );
        $this->as('priya.lindqvist', 'POST', "tasks/{$task}/reopen")->assertOk()->assertJsonPath('status', 'open');
        self::assertCount(2, $this->as('bram.castellan', 'GET', "records/ticket/{$back['record']['id']}/account")->json('ahead'));
    }

    public function test_why_not_reads_the_past_as_it_was(): void
    {
        $customer = $this->customer(plan: 'basic');
        $rule = $this->inForce($this->demoFile('020-full-care-first'));
        $ticket = $this->ticket(['customer' => $customer['id']]);
        self::assertSame([], $ticket['fired']);
        $this->change($customer, ['plan' => 'full_care']);
        $this->change($ticket['record'], ['priority' => 'urgent']);

        $answer = $this->as('ines.okafor', 'GET', "ledger/{$ticket['entry']}/answers?rule={$rule}")->json('0.verdict');
        self::assertSame('conditions', $answer['reason']);
        self::assertSame(
            [['Basic', false], ['Normal', true]],
            array_map(static fn (array $part): array => [$part['seen'], $part['held']], $answer['conditions']['parts']),
        );
    }

    public function test_a_rule_that_an_earlier_one_forestalled_is_told_so(): void
    {
        $open = static fn (string $name, array $line): array => [
            'name' => $name, 'on' => 'ticket', 'when' => ['kind' => 'created'], 'onlyIf' => [
                'kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'status', 'value' => 'open']],
            ],
            'fires' => ['kind' => 'every_time'], 'lines' => [$line],
        ];
        $this->inForce($open(
            'Close at once',
            ['kind' => 'set_fields', 'set' => [['field' => 'status', 'to' => ['kind' => 'value', 'value' => 'closed']]]],
        ));
        $this->inForce($open(
            'Greet the open ones',
            ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Greet', 'due' => null],
        ));
        $saved = $this->ticket();
        $answers = $this->as('ines.okafor', 'GET', "ledger/{$saved['entry']}/answers")->json();

        self::assertSame(
            [['Close at once', 'fires', true], ['Greet the open ones', 'conditions', false]],
            array_map(
                static fn (array $answer): array => [$answer['name'], $answer['verdict']['reason'], $answer['firedIn'] !== null],
                $answers,
            ),
        );
        self::assertStringContainsString('the value is Closed', $answers[1]['verdict']['sentence']);
    }

    public function test_only_the_page_then_in_force_is_asked(): void
    {
        $before = $this->ticket();
        $rule = $this->inForce($this->demoFile('010-urgent-ticket'));
        $during = $this->ticket();
        $this->as('ines.okafor', 'POST', "rules/{$rule}/status", ['status' => 'paused'])->assertOk();
        $after = $this->ticket(['priority' => 'urgent']);

        self::assertSame([], $after['fired']);
        self::assertSame(
            [0, 1, 0],
            array_map(
                fn (array $saved): int => count($this->as('ines.okafor', 'GET', "ledger/{$saved['entry']}/answers")->json()),
                [$before, $during, $after],
            ),
        );
    }

    public function test_cascades_are_threaded_and_a_stopped_chain_is_an_entry(): void
    {
        $turn = static fn (string $name, string $watch, string $set, mixed $value): array => [
            'name' => $name, 'on' => 'ticket', 'when' => [
                'kind' => 'changed', 'fields' => [$watch],
            ], 'onlyIf' => ['kind' => 'all', 'of' => []],
            'fires' => ['kind' => 'every_time'], 'lines' => [
                ['kind' => 'set_fields', 'set' => [['field' => $set, 'to' => ['kind' => 'value', 'value' => $value]]]],
            ],
        ];
        $this->inForce($turn('Stage stamp', 'status', 'review', 'needed'));
        $this->inForce($turn('Stage tidy', 'review', 'status', 'open'));
        $saved = $this->change($this->ticket()['record'], ['status' => 'partner']);

        self::assertSame(['Stage stamp', 'Stage tidy'], array_column($saved['fired'], 'name'));
        self::assertSame(['open', 'needed'], [$saved['record']['values']['status'], $saved['record']['values']['review']]);
        $stopped = $this->as('ines.okafor', 'GET', 'ledger?show=rules')->json('entries.0');
        self::assertSame(['stopped', ['Stage stamp', 'Stage tidy', 'Stage stamp']], [$stopped['kind'], $stopped['data']['chain']]);
        self::assertSame(
            ['fired', 'fired', 'changed'],
            array_column($this->as('ines.okafor', 'GET', "ledger/{$stopped['number']}")->json('causes'), 'kind'),
        );
    }

    public function test_what_falls_due_goes_into_ink_once_and_what_was_done_is_struck_out(): void
    {
        $this->inForce($this->demoFile('010-urgent-ticket'));
        $late = $this->ticket(['priority' => 'urgent']);
        $done = $this->ticket(['priority' => 'urgent']);
        $this->as(
            'ines.okafor',
            'POST',
            'tasks/'.DB::table('tasks')->where('record_id', $done['record']['id'])->value('id').'/complete',
        )->assertOk();
        $worker = $this->app->make(LineWorker::class);
        self::assertSame(0, $worker->work(10), 'nothing is due yet');
        $this->clockAt('2026-11-24T12:40:00Z');
        self::assertSame([1, 0], [$worker->work(10), $worker->work(10)]);

        self::assertSame(['inked', 'struck'], DB::table('scheduled_lines')->orderBy('id')->pluck('status')->all());
        $entry = $this->as('odile.march', 'GET', "records/ticket/{$late['record']['id']}/account")->json('entries.0');
        self::assertSame(['task_due', '2026-11-24T12:40:00Z', 'Priya Lindqvist'], [$entry['kind'], $entry['at'], $entry['data']['person']]);
    }

    public function test_a_failure_in_the_middle_leaves_nothing_behind(): void
    {
        $this->inForce($this->demoFile('010-urgent-ticket'));
        $ticket = $this->ticket()['record'];
        $count = static fn (): array => array_map(
            static fn (string $table): int => DB::table($table)->count(),
            ['entries', 'field_history', 'guard_keys', 'tasks', 'scheduled_lines'],
        );
        $before = $count();
        $fails = true;
        DB::listen(static function (QueryExecuted $query) use (&$fails): void {
            if ($fails && str_contains($query->sql, 'INSERT INTO `scheduled_lines`')) {
                throw new \RuntimeException('The power went out.');
            }
        });
        $this->as(
            'bram.castellan',
            'PATCH',
            "records/ticket/{$ticket['id']}",
            ['version' => 1, 'values' => ['priority' => 'urgent']],
        )->assertStatus(500)->assertJsonPath('code', 'failed');
        $fails = false;

        self::assertSame(
            [$before, 'normal', 1],
            [$count(), DB::table('records_ticket')->value('priority'), (int) DB::table('records_ticket')->value('version')],
        );
        self::assertCount(1, $this->change($ticket, ['priority' => 'urgent'])['fired'], 'and the next try does it all');
    }
}

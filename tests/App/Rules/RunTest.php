<?php

declare(strict_types=1);

namespace Tests\App\Rules;

use App\Store\Timing\RunStore;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;

/** Rules run by hand on a selection: worked through in the background, once for each record, whatever happens meanwhile. */
final class RunTest extends AppTestCase
{
    public function test_a_run_that_is_cut_short_goes_on_where_it_was(): void
    {
        $rule = $this->byHand();
        $ids = $this->tickets(7);
        $run = $this->start($rule, $ids);
        $work = $this->app->make(RunStore::class);
        self::assertSame(1, $work->work(0.0), 'time is up after the first');
        // The worker that held it has died without giving it back; nobody takes it until its lease is over.
        DB::table('runs')->update(['leased_until' => '2100-01-01']);
        self::assertSame(0, $work->work(5));
        DB::table('runs')->update(['leased_until' => '2020-01-01']);
        self::assertSame(6, $work->work(5));
        self::assertSame(0, $work->work(5));

        $told = $this->as('bram.castellan', 'GET', "runs/{$run}")->json();
        self::assertSame(['done', 7, 7, 7], [$told['status'], $told['total'], $told['done'], $told['fired']]);
        self::assertSame(7, DB::table('tasks')->count(), 'each got its task, and none got two');
        self::assertSame(7, DB::table('entries')->where(['kind' => 'fired', 'rule_id' => $rule])->count());
    }

    public function test_each_record_is_answered_with_what_came_of_it(): void
    {
        $rule = $this->byHand(['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'status', 'value' => 'open']]]);
        $open = $this->ticket(['subject' => 'Ferns'])['record'];
        $closed = $this->ticket(['subject' => 'Moss', 'status' => 'closed'])['record'];
        $gone = $this->ticket(['subject' => 'Gone'])['record'];
        $run = $this->start($rule, [$open['id'], $closed['id'], $gone['id']]);
        $this->as('bram.castellan', 'DELETE', "records/ticket/{$gone['id']}?version=1")->assertOk();
        $this->app->make(RunStore::class)->work(5);

        $results = $this->as('lena.abara', 'GET', "runs/{$run}")->json('results');
        self::assertSame(['fired', 'silent', 'refused'], array_column($results, 'result'));
        self::assertSame(['Ferns', 'Moss'], array_slice(array_column($results, 'recordTitle'), 0, 2));
        self::assertStringContainsString('There is no ticket', $results[2]['said']);
        // Why it was silent is explained where every other silence is.
        $verdicts = $this->as('lena.abara', 'GET', "ledger/{$results[1]['entry']}/answers?rule={$rule}")->json();
        self::assertSame('conditions', $verdicts[0]['verdict']['reason']);
    }

    public function test_only_the_chosen_rule_answers(): void
    {
        $chosen = $this->byHand();
        $other = $this->byHand();
        $id = $this->tickets(1)[0];
        $this->as('bram.castellan', 'POST', "rules/{$chosen}/run", ['recordType' => 'ticket', 'records' => [$id]])
            ->assertCreated()
            ->assertJsonPath('status', 'done')
            ->assertJsonPath('results.0.result', 'fired');

        self::assertSame(
            [1, 0],
            array_map(
                static fn (int $rule): int => DB::table('entries')->where(['kind' => 'fired', 'rule_id' => $rule])->count(),
                [$chosen, $other],
            ),
        );
    }

    public function test_a_record_named_twice_is_answered_once(): void
    {
        $id = $this->tickets(1)[0];
        $run = $this->start($this->byHand(), [$id, $id, $this->tickets(1)[0]]);
        $this->app->make(RunStore::class)->work(5);

        $this->as('bram.castellan', 'GET', "runs/{$run}")->assertJsonPath('total', 2)->assertJsonPath('fired', 2);
    }

    public function test_a_run_that_cannot_be_is_refused(): void
    {
        $rule = $this->byHand();
        $run = fn (int $rule, array $body, string $who = 'bram.castellan') => $this->as($who, 'POST', "rules/{$rule}/run", $body);
        $this->assertRefused($run($rule, ['recordType' => 'ticket', 'records' => []]), 422, 'invalid_request', '/records');
        $this->assertRefused($run($rule, ['recordType' => 'ticket', 'records' => ['x']]), 422, 'invalid_request');
        $this->assertRefused($run($rule, ['recordType' => 'boat', 'records' => [1]]), 404, 'not_found');
        $this->assertRefused($run($rule, ['recordType' => 'ticket', 'records' => range(1, RunStore::MOST + 1)]), 422, 'invalid_values');
        $this->assertRefused($run(999999, ['recordType' => 'ticket', 'records' => [1]]), 409, 'not_runnable');
        $this->assertRefused($run($rule, ['recordType' => 'ticket', 'records' => [1]], 'odile.march'), 403, 'not_allowed');
        $this->as('ines.okafor', 'POST', "rules/{$rule}/status", ['status' => 'paused'])->assertOk();
        $this->assertRefused($run($rule, ['recordType' => 'ticket', 'records' => [1]]), 409, 'not_runnable');
        self::assertSame(0, DB::table('runs')->count());
    }

    public function test_a_rule_paused_while_a_run_waits_does_not_fire_any_more(): void
    {
        $rule = $this->byHand();
        $run = $this->start($rule, $this->tickets(2));
        $this->as('ines.okafor', 'POST', "rules/{$rule}/status", ['status' => 'paused'])->assertOk();
        $this->forgetEverything();
        $this->clockAt(self::NOW);
        $this->app->make(RunStore::class)->work(5);

        $told = $this->as('bram.castellan', 'GET', "runs/{$run}")->json();
        self::assertSame(['done', 2, 0], [$told['status'], $told['done'], $told['fired']]);
        self::assertSame(0, DB::table('tasks')->count());
    }

    /** @param  array<string, mixed>  $onlyIf */
    private function byHand(array $onlyIf = ['kind' => 'all', 'of' => []]): int
    {
        return $this->inForce([
            'name' => 'Ask for photos', 'on' => 'ticket', 'when' => ['kind' => 'by_hand'], 'onlyIf' => $onlyIf,
            'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'give_task', 'to' => ['kind' => 'doer'], 'title' => 'Ask about {subject}', 'due' => null]],
        ]);
    }

    /** @return list<int> ids of so many tickets of one customer */
    private function tickets(int $count): array
    {
        $customer = $this->customer()['id'];

        return array_map(
            fn (int $number): int => $this->ticket(['subject' => "Ticket {$number}", 'customer' => $customer])['record']['id'],
            range(1, $count),
        );
    }

    /**
     * @param  list<int>  $ids
     * @return int the run's id
     */
    private function start(int $rule, array $ids): int
    {
        return $this->as('bram.castellan', 'POST', "rules/{$rule}/run", ['recordType' => 'ticket', 'records' => $ids])
            ->assertCreated()
            ->assertJsonPath('status', 'waiting')
            ->json('id');
    }
}

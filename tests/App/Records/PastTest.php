<?php

declare(strict_types=1);

namespace Tests\App\Records;

use App\Evidence\Rehearsal\RecordedPast;
use App\Store\Records\PointInTimeFacts;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;

/** The past as it was: of records that changed since, of records that are gone, and of rules that read more than one. */
final class PastTest extends AppTestCase
{
    public function test_a_total_of_the_past_counts_what_was_there_then(): void
    {
        $rule = $this->inForce($this->counts('2'));
        $customer = $this->customer()['id'];
        $one = $this->ticket(['customer' => $customer])['record'];
        $two = $this->ticket(['customer' => $customer])['record'];
        $this->clockAt('2026-11-24T09:00:00Z');
        $fired = $this->change($one, ['hours' => '1']);
        self::assertCount(1, $fired['fired']);

        // Since then one was closed, one deleted and three were made.
        $this->clockAt('2026-11-25T09:00:00Z');
        $this->change($fired['record'], ['status' => 'closed']);
        $this->as('bram.castellan', 'DELETE', "records/ticket/{$two['id']}?version=1")->assertOk();
        foreach (range(1, 3) as $ignored) {
            $this->ticket(['customer' => $customer]);
        }
        $then = $this->as('odile.march', 'GET', "ledger/{$fired['entry']}/answers?rule={$rule}")->json('0');
        self::assertSame('fires', $then['verdict']['reason']);
        self::assertStringContainsString('2', (string) json_encode($then['verdict']));
    }

    public function test_why_a_rule_was_silent_is_told_with_the_parent_as_it_was(): void
    {
        $rule = $this->inForce([
            'name' => 'R', 'on' => 'ticket', 'when' => ['kind' => 'changed'], 'onlyIf' => [
                'kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'customer.plan', 'value' => 'care']],
            ],
            'fires' => ['kind' => 'every_time'], 'lines' => [
                ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Look', 'due' => null],
            ],
        ]);
        $customer = $this->customer('Hotel', 'basic');
        $ticket = $this->ticket(['customer' => $customer['id']])['record'];
        $this->clockAt('2026-11-24T09:00:00Z');
        $silent = $this->change($ticket, ['hours' => '1']);
        $this->clockAt('2026-11-24T10:00:00Z');
        $this->change($customer, ['plan' => 'care']);
        $this->clockAt('2026-11-24T11:00:00Z');
        $loud = $this->change($silent['record'], ['hours' => '2']);

        $reasons = array_map(
            fn (array $saved): string => $this->as(
                'odile.march',
                'GET',
                "ledger/{$saved['entry']}/answers?rule={$rule}",
            )->json('0.verdict.reason'),
            [$silent, $loud],
        );
        self::assertSame(['conditions', 'fires'], $reasons);
    }

    public function test_a_deleted_record_keeps_its_account_and_its_explanations(): void
    {
        $rule = $this->inForce(['name' => 'Farewell', 'on' => 'ticket', 'when' => ['kind' => 'deleted'],
            'fires' => ['kind' => 'every_time'], 'lines' => [
                ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Gone: {subject}', 'due' => null],
            ]]);
        $ticket = $this->ticket(['subject' => 'Ferns'])['record'];
        $this->as('bram.castellan', 'DELETE', "records/ticket/{$ticket['id']}?version=1")->assertOk();

        $fired = (array) DB::selectOne("SELECT * FROM entries WHERE kind = 'fired' AND rule_id = ?", [$rule]);
        $entry = $this->as('odile.march', 'GET', "ledger/{$fired['id']}")->assertOk()->json('entry');
        self::assertSame(['Farewell', $ticket['number']], [$entry['ruleName'], $entry['recordNumber']]);
        self::assertSame('Gone: Ferns', DB::table('tasks')->value('title'));
        $answers = $this->as('odile.march', 'GET', "ledger/{$entry['cause']}/answers")->assertOk()->json();
        self::assertSame(['Farewell', 'fires'], [$answers[0]['name'] ?? $answers[0]['ruleName'], $answers[0]['verdict']['reason']]);

        // Once it is back, its whole account is there again, in its order.
        $this->as('bram.castellan', 'POST', "records/ticket/{$ticket['id']}/restore")->assertOk();
        $kinds = array_column($this->as('odile.march', 'GET', "records/ticket/{$ticket['id']}/account")->json('entries'), 'kind');
        self::assertSame(
            ['created', 'deleted', 'fired', 'restored'],
            array_values(array_intersect(array_reverse($kinds), ['created', 'deleted', 'fired', 'restored'])),
        );
    }

    public function test_guards_tasks_and_messages_are_those_of_the_moment_whoever_asks(): void
    {
        $this->inForce(['name' => 'Once', 'on' => 'ticket', 'when' => ['kind' => 'changed'], 'fires' => ['kind' => 'once_per_record'],
            'lines' => [
                ['kind' => 'give_task', 'to' => ['kind' => 'named', 'handle' => 'bram.castellan'], 'title' => 'Look', 'due' => null],
            ]]);
        $rule = (int) DB::table('rules')->max('id');
        $bram = $this->person('bram.castellan')->id;
        $ticket = $this->ticket()['record'];
        $this->clockAt('2026-11-24T09:00:00Z');
        $first = $this->change($ticket, ['hours' => '1']);
        $this->clockAt('2026-11-24T10:00:00Z');
        $second = $this->change($first['record'], ['hours' => '2']);
        $this->clockAt('2026-11-24T11:00:00Z');
        $this->as('bram.castellan', 'POST', 'tasks/'.DB::table('tasks')->value('id').'/complete')->assertOk();
        $third = $this->change($second['record'], ['hours' => '3']);

        $worlds = [$this->app->make(PointInTimeFacts::class), $this->app->make(RecordedPast::class)];
        foreach ($worlds as $world) {
            $seen = [];
            foreach ([[$first, '08:59'], [$second, '10:00'], [$third, '11:00']] as [$saved, $time]) {
                $then = $world->after($saved['entry'], new \DateTimeImmutable("2026-11-24T{$time}:00Z"));
                $seen[] = [
                    $then->record('ticket', $ticket['id'])?->value('hours'), $then->guardState($rule, 'ticket', $ticket['id'])->count,
                    $then->openTasks([$bram])[$bram] ?? 0,
                ];
            }
            self::assertSame([['1.00', 0, 0], ['2.00', 1, 1], ['3.00', 1, 0]], $seen, $world::class);
        }
        $answer = fn (array $saved): string => $this->as('odile.march', 'GET', "ledger/{$saved['entry']}/answers?rule={$rule}")
            ->json('0.verdict.reason');
        self::assertSame(['fires', 'guard_held', 'guard_held'], array_map($answer, [$first, $second, $third]));
    }

    public function test_what_was_pencilled_in_is_struck_out_with_the_record(): void
    {
        $this->inForce(['name' => 'Later', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [
                ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Look', 'due' => ['amount' => 2, 'unit' => 'day']],
            ]]);
        $ticket = $this->ticket()['record'];
        self::assertSame('pencilled', DB::table('scheduled_lines')->value('status'));
        $this->as('bram.castellan', 'DELETE', "records/ticket/{$ticket['id']}?version=1")->assertOk();
        self::assertSame(
            ['struck', 'the record was deleted'],
            [DB::table('scheduled_lines')->value('status'), DB::table('scheduled_lines')->value('struck_because')],
        );
    }

    public function test_entries_of_another_record_name_the_save_they_came_from(): void
    {
        $this->inForce(['name' => 'Mark', 'on' => 'ticket', 'when' => [
            'kind' => 'changed', 'fields' => ['status'], 'to' => 'closed',
        ], 'fires' => ['kind' => 'every_time'], 'lines' => [
            [
                'kind' => 'set_fields', 'on' => 'customer',
                'set' => [['field' => 'key_account', 'to' => ['kind' => 'value', 'value' => true]]],
            ],
        ]]);
        $customer = $this->customer();
        $ticket = $this->ticket(['customer' => $customer['id']])['record'];
        $saved = $this->change($ticket, ['status' => 'closed']);

        $changed = $this->as('odile.march', 'GET', "records/customer/{$customer['id']}/account")->json('entries.0');
        self::assertSame(['changed', 'rule', $saved['fired'][0]['entry']], [$changed['kind'], $changed['via'], $changed['cause']]);
        self::assertSame(
            [['Key account', 'not ticked', 'ticked']],
            array_map(static fn (array $change): array => [$change['label'], $change['before'], $change['after']], $changed['changes']),
        );
    }

    /** @return array<string, mixed> a rule that fires when a customer has so many open tickets */
    private function counts(string $open): array
    {
        return [
            'name' => 'Many', 'on' => 'ticket', 'when' => ['kind' => 'changed'],
            'onlyIf' => ['kind' => 'all', 'of' => [[
                'kind' => 'is', 'total' => [
                    'of' => 'count', 'relation' => 'customer>ticket.customer',
                    'where' => ['kind' => 'is', 'field' => 'status', 'value' => 'open'],
                ], 'value' => $open,
            ]]],
            'fires' => ['kind' => 'every_time'], 'lines' => [
                ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Look', 'due' => null],
            ],
        ];
    }
}

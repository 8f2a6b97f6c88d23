<?php

declare(strict_types=1);

namespace Tests\App\Records;

use App\Models\Outbound\StoredMessage;
use App\Work\Inbound\InboundMail;
use App\Work\Inbound\ReplyAddress;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;

/** Two records that are one: all that named the one names the other, nothing is lost, and no rule takes it for news. */
final class MergeTest extends AppTestCase
{
    public function test_what_named_the_one_names_the_other_and_nothing_is_lost(): void
    {
        $this->inForce([
            'name' => 'Customer moved', 'on' => 'ticket', 'when' => ['kind' => 'changed', 'fields' => ['customer']],
            'fires' => ['kind' => 'every_time'], 'lines' => [['kind' => 'comment', 'text' => 'moved']],
        ]);
        $this->inForce([
            'name' => 'Plan', 'on' => 'customer', 'when' => ['kind' => 'changed', 'fields' => ['plan']],
            'fires' => ['kind' => 'every_time'], 'lines' => [['kind' => 'comment', 'text' => 'another plan']],
        ]);
        [$kept, $gone] = [$this->customer('Brine Works'), $this->customer('Brine Works Ltd', 'full_care')];
        $tickets = array_map(fn (): int => $this->ticket(['customer' => $gone['id']])['record']['id'], range(1, 3));
        $this->as('bram.castellan', 'POST', "records/customer/{$gone['id']}/comments", ['text' => 'They pay late'])->assertSuccessful();
        $this->as('lena.abara', 'POST', "records/customer/{$gone['id']}/follow", ['follows' => true])->assertSuccessful();
        $task = $this->as('bram.castellan', 'POST', 'tasks', [
            'title' => 'Ring', 'recordType' => 'customer', 'recordId' => $gone['id'], 'dueAt' => '2026-12-01T09:00:00Z',
        ])->assertCreated()->json('id');

        $merge = ['version' => $kept['version'], 'other' => $gone['id'], 'otherVersion' => $gone['version']];
        $saved = $this->as('bram.castellan', 'POST', "records/customer/{$kept['id']}/merge", $merge + ['values' => ['plan' => 'full_care']])
            ->assertOk()->json();
        self::assertSame('full_care', $saved['record']['values']['plan']);
        self::assertSame(['Plan'], array_column($saved['fired'], 'name'), 'what the kept one is given is a change like any other');
        self::assertSame([$kept['id']], DB::table('records_ticket')->whereIn('id', $tickets)->distinct()->pluck('customer')->all());
        self::assertSame(0, DB::table('comments')->where('text', 'moved')->count(), 'no rule takes the new name for news');
        self::assertSame(3, DB::table('entries')->where(['kind' => 'changed', 'record_type' => 'ticket'])->count(), 'the ledger has each');
        $of = "records/customer/{$kept['id']}";
        $said = fn (string $path): string => (string) $this->as('bram.castellan', 'GET', "{$of}/{$path}")->getContent();
        self::assertStringContainsString('They pay late', (string) DB::table('comments')->where('record_id', $kept['id'])->value('text'));
        self::assertStringContainsString('Lena Abara', $said('beside'));
        self::assertStringContainsString('Ring', $said('tasks'));
        self::assertSame($kept['id'], (int) DB::table('scheduled_lines')->where('task_id', $task)->value('record_id'));
        self::assertSame('pencilled', DB::table('scheduled_lines')->where('task_id', $task)->value('status'));
        $account = $this->as('bram.castellan', 'GET', "records/customer/{$kept['id']}/account")->json('entries');
        $entry = collect($account)->firstWhere('kind', 'merged');
        self::assertStringStartsWith('merged C', str_replace('‑', '-', $entry['head']['rest']));
        self::assertSame('3 records that named it name this one now.', $entry['detail']);

        self::assertContains('They pay late', array_column($account, 'detail'), 'the account tells of both');

        // It lies in the bin, and comes back from there.
        $this->as('bram.castellan', 'GET', "records/customer/{$gone['id']}")->assertNotFound();
        $this->as('ines.okafor', 'POST', "records/customer/{$gone['id']}/restore")->assertOk()
            ->assertJsonPath('record.title', 'Brine Works Ltd');
    }

    public function test_an_answer_to_a_letter_of_the_one_that_goes_lands_on_the_one_that_stays(): void
    {
        $this->inForce([
            'name' => 'Thanks', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'once_per_record'], 'lines' => [
                ['kind' => 'send_message', 'to' => [['kind' => 'field', 'path' => 'contact']], 'subject' => 'Thank you',
                    'body' => 'We look at it.'],
            ],
        ]);
        $customer = $this->customer();
        $contact = $this->created('contact', [
            'name' => 'Marit Solheim', 'customer' => $customer['id'], 'email' => 'marit@brine.example',
        ])['record'];
        [$kept, $gone, $last] = array_map(fn (): array => $this->ticket([
            'customer' => $customer['id'], 'contact' => $contact['id'],
        ])['record'], range(1, 3));
        $letter = StoredMessage::query()->where('record_id', $gone['id'])->where('channel', 'email')->firstOrFail();
        $into = fn (array $stays, array $goes) => $this->as('ines.okafor', 'POST', "records/ticket/{$stays['id']}/merge", [
            'version' => $this->as('ines.okafor', 'GET', "records/ticket/{$stays['id']}")->json('version'), 'other' => $goes['id'],
            'otherVersion' => $this->as('ines.okafor', 'GET', "records/ticket/{$goes['id']}")->json('version'), 'values' => [],
        ])->assertOk();
        $into($kept, $gone);
        // And that one is merged in its turn.
        $into($last, $kept);
        $reply = ReplyAddress::of($letter->refresh());
        $this->app->make(InboundMail::class)->take(implode("\r\n", [
            'Message-ID: <m-1@brine.example>', 'From: Marit Solheim <marit@brine.example>', "To: {$reply}", 'Subject: Re: Thank you',
            'Content-Type: text/plain; charset=utf-8', '', 'It leaks again.',
        ]));
        $account = fn (): array => array_column($this->as('ines.okafor', 'GET', "records/ticket/{$last['id']}/account")->json('entries'),
            'detail');
        self::assertContains('It leaks again.', $account());
        self::assertSame([3, $last['id']], [
            count(array_filter($this->as('ines.okafor', 'GET', "records/ticket/{$last['id']}/account")->json('entries'),
                static fn (array $entry): bool => $entry['kind'] === 'created')),
            (int) DB::table('entries')->where('kind', 'reply')->value('record_id'),
        ]);
        self::assertCount(3, $this->as('ines.okafor', 'GET', "records/ticket/{$last['id']}/messages")->json());
        self::assertSame(0, DB::table('messages')->whereIn('record_id', [$kept['id'], $gone['id']])->count());
        // One that is brought back tells of itself again.
        $this->as('ines.okafor', 'POST', "records/ticket/{$kept['id']}/restore")->assertOk();
        self::assertNotContains($kept['number'], $account());
    }

    public function test_what_cannot_be_merged_is_told_and_all_stays_as_it_was(): void
    {
        $this->inForce([
            'name' => 'Never full care', 'on' => 'customer', 'when' => ['kind' => 'changed', 'fields' => ['plan'], 'to' => 'full_care'],
            'fires' => ['kind' => 'every_time'], 'lines' => [['kind' => 'refuse', 'message' => 'Ask first.']],
        ]);
        [$kept, $gone] = [$this->customer('One'), $this->customer('Two')];
        $ticket = $this->ticket(['customer' => $gone['id']])['record']['id'];
        $merge = fn (array $changed, string $who = 'bram.castellan'): \Illuminate\Testing\TestResponse => $this->as(
            $who, 'POST', "records/customer/{$kept['id']}/merge",
            $changed + ['version' => $kept['version'], 'other' => $gone['id'], 'otherVersion' => $gone['version']],
        );
        $this->assertRefused($merge(['other' => $kept['id']]), 422, 'invalid_values', '/other');
        $merge(['other' => 999999])->assertNotFound();
        $this->assertRefused($merge(['otherVersion' => 0]), 409, 'stale_version');
        $this->assertRefused($merge(['values' => ['plan' => 'castle']]), 422, 'invalid_values', '/values/plan');
        $merge(['values' => ['plan' => 'full_care']])->assertStatus(422)->assertSee('Ask first.');
        $merge([], 'odile.march')->assertForbidden();
        self::assertSame($gone['id'], (int) DB::table('records_ticket')->where('id', $ticket)->value('customer'));
        self::assertSame(2, DB::table('records_customer')->whereIn('id', [$kept['id'], $gone['id']])->count());
    }
}

<?php

declare(strict_types=1);

namespace Tests\App;

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

        // It lies in the bin, and comes back from there.
        $this->as('bram.castellan', 'GET', "records/customer/{$gone['id']}")->assertNotFound();
        $this->as('ines.okafor', 'POST', "records/customer/{$gone['id']}/restore")->assertOk()
            ->assertJsonPath('record.title', 'Brine Works Ltd');
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

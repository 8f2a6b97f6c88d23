<?php

declare(strict_types=1);

namespace Tests\App\Records;

use App\Store\HouseClock;
use App\Store\Setup\Company;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;

/** Since when a record has been at its stage, whoever brought it there; a field of nearly that name is nobody else's business. */
final class StageSinceTest extends AppTestCase
{
    /** However long a save takes, all of it happens at one second. */
    public function test_one_change_has_one_moment(): void
    {
        $ticket = $this->ticket()['record'];
        $clock = $this->app->make(HouseClock::class);
        $clock->hold(null);
        $this->app->make(Company::class)->setClock(new \DateTimeImmutable('2026-11-24T08:40:00Z'));
        $gone = false;
        DB::listen(static function (QueryExecuted $query) use (&$gone): void {
            if (! $gone && str_contains($query->sql, 'rule_watches')) {
                $gone = true;
                DB::table('company')->increment('clock_offset', 3600);
            }
        });
        $this->change($ticket, ['status' => 'closed']);
        self::assertTrue($gone, 'the clock went on in the midst of it');
        $row = DB::table('records_ticket')->where('id', $ticket['id'])->first(['_stage_since as since', 'updated_at']);
        self::assertSame($row->updated_at, $row->since);
    }

    public function test_it_is_kept_through_saves_rules_and_reversals(): void
    {
        $this->clockAt('2026-11-20T09:00:00Z');
        $customer = $this->customer()['id'];
        $quote = $this->created('quote', [
            'subject' => 'Atrium', 'customer' => $customer, 'stage' => 'draft', 'stage_since' => '2020-01-01', 'owner' => 'ines.okafor',
        ])['record'];
        self::assertSame(['2020-01-01', '2026-11-20T09:00:00Z'], [$quote['values']['stage_since'], $this->since('quote', $quote['id'])]);
        $this->clockAt('2026-11-21T09:00:00Z');
        $quote = $this->as('ines.okafor', 'PATCH', "records/quote/{$quote['id']}", ['version' => 1, 'values' => ['amount' => '5']])
            ->assertOk()->json('record');
        self::assertSame('2026-11-20T09:00:00Z', $this->since('quote', $quote['id']), 'another field changes nothing about it');
        $sent = $this->as('ines.okafor', 'PATCH', "records/quote/{$quote['id']}", ['version' => 2, 'values' => ['stage' => 'sent']])
            ->assertOk()->json();
        self::assertSame(['2020-01-01', '2026-11-21T09:00:00Z'], [
            $sent['record']['values']['stage_since'], $this->since('quote', $quote['id']),
        ], 'a field of the company’s own with that name stays as it is');
        $this->clockAt('2026-11-22T09:00:00Z');
        $this->as('ines.okafor', 'POST', 'reversals', ['entries' => [$sent['entry']], 'why' => 'no'])->assertOk();
        self::assertSame('2026-11-22T09:00:00Z', $this->since('quote', $quote['id']));

        $this->inForce([
            'name' => 'Close it', 'on' => 'ticket', 'when' => ['kind' => 'changed', 'fields' => ['hours']],
            'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'set_fields', 'set' => [['field' => 'status', 'to' => ['kind' => 'value', 'value' => 'closed']]]]],
        ]);
        $ticket = $this->ticket(['customer' => $customer])['record'];
        $this->clockAt('2026-11-23T09:00:00Z');
        $this->change($ticket, ['hours' => '2']);
        self::assertSame('2026-11-23T09:00:00Z', $this->since('ticket', $ticket['id']), 'a rule brought it there');
        self::assertSame(1, DB::table('records_ticket')->where('status', 'closed')->count());
    }

    private function since(string $type, int $id): ?string
    {
        return $this->as('ines.okafor', 'GET', "records/{$type}/{$id}")->assertOk()->json('stageSince');
    }
}

<?php

declare(strict_types=1);

namespace Tests\App;

use App\Store\Access\AccessEntries;
use App\Store\Operations\Timings;
use Illuminate\Support\Facades\Context;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Log;
use Illuminate\Support\Facades\Queue;
use Monolog\Handler\TestHandler;
use Tests\App\Support\AppTestCase;

/** A request has a number, by which its entries, its jobs and its lines in the log are found; and what it took is counted. */
final class RequestTest extends AppTestCase
{
    public function test_entry_and_log_bear_the_number_of_the_request(): void
    {
        $log = new TestHandler;
        Log::getLogger()->pushHandler($log);
        $ticket = $this->withHeader('X-Request-Id', 'from-the-proxy-0001')->ticket()['record'];
        $entry = DB::table('entries')->where('record_type', 'ticket')->where('kind', 'created')->where('record_id', $ticket['id'])->first();
        self::assertSame('from-the-proxy-0001', $entry->request);
        $shown = $this->as('ines.okafor', 'GET', "ledger/{$entry->id}")->assertOk()->assertHeader('X-Request-Id', 'from-the-proxy-0001');
        self::assertSame('from-the-proxy-0001', $shown->json('entry.request'));
        Log::warning('Something odd');
        self::assertSame('from-the-proxy-0001', $log->getRecords()[0]->extra['request'] ?? null);

        foreach (["bad\n", 'short', str_repeat('x', 65), ''] as $odd) {
            $given = (string) $this->withHeader('X-Request-Id', $odd)->as('ines.okafor', 'GET', 'session')->headers->get('X-Request-Id');
            self::assertMatchesRegularExpression('/^[0-9a-z]{26}$/', $given);
            self::assertSame($given, Context::get('request'));
        }
    }

    public function test_what_goes_into_a_queue_bears_the_number_of_the_request_that_led_to_it(): void
    {
        $this->withHeader('X-Request-Id', 'leads-to-a-job-1')->as('ines.okafor', 'GET', 'session')->assertOk();
        // What the framework writes into each job, and takes up again where the job is done.
        $kept = Context::dehydrate();
        Context::flush();
        Context::hydrate($kept);
        $this->app->make(AccessEntries::class)->write('signed_in', $this->person('ines.okafor')->id);
        self::assertSame('leads-to-a-job-1', DB::table('entries')->latest('id')->value('request'));
    }

    public function test_what_saves_take_is_counted_in_buckets(): void
    {
        config(['ledger.metrics_token' => 'secret']);
        DB::table('timings')->delete();
        $this->ticket();
        $this->app->make(Timings::class)->flush();
        $text = (string) $this->withHeader('Authorization', 'Bearer secret')->get('/metrics')->assertOk()->getContent();
        self::assertSame(1, preg_match('/^vivid_ledger_seconds_count\{of="save"\} (\d+)$/m', $text, $saves));
        self::assertSame(1, preg_match('/^vivid_ledger_seconds_bucket\{of="save",le="\+Inf"\} (\d+)$/m', $text, $all));
        self::assertSame('2', $saves[1], 'a customer and a ticket');
        self::assertSame($saves[1], $all[1]);
        self::assertSame(1, preg_match('/^vivid_ledger_seconds_sum\{of="decide"\} 0\.\d+$/m', $text));
        preg_match_all('/^vivid_ledger_seconds_bucket\{of="save",le="[^"]+"\} (\d+)$/m', $text, $found);
        $sorted = $found[1];
        sort($sorted);
        self::assertSame($sorted, $found[1], 'each bucket holds those below it');
    }

    public function test_an_administrator_signs_somebody_out_everywhere(): void
    {
        $lena = $this->person('lena.abara');
        $token = $lena->createToken('a script', ['*'])->plainTextToken;
        DB::table('sessions')->insert(['id' => 'hers', 'user_id' => $lena->id, 'payload' => '', 'last_activity' => time()]);
        $this->as('bram.castellan', 'DELETE', "people/{$lena->id}/sign-ins")->assertForbidden();
        $this->as('ines.okafor', 'DELETE', "people/{$lena->id}/sign-ins")->assertNoContent();
        self::assertSame(0, DB::table('sessions')->where('user_id', $lena->id)->count());
        $this->app->make('auth')->forgetGuards();
        $this->withToken($token)->getJson('/api/session')->assertUnauthorized();
        $entry = (int) DB::table('entries')->where('kind', 'signed_out')->max('id');
        self::assertSame('signed Lena Abara out everywhere', $this->as('ines.okafor', 'GET', "ledger/{$entry}")->json('entry.head.rest'));
    }

    public function test_what_was_changed_about_somebody_is_told_with_names(): void
    {
        $lena = $this->person('lena.abara');
        $this->as('ines.okafor', 'PATCH', "people/{$lena->id}", [
            'role' => 'manager', 'managerId' => 'tomas.weld', 'limit' => '500', 'team' => 'Service Hillgate',
        ])->assertOk();
        $entry = (int) DB::table('entries')->where('kind', 'person_changed')->max('id');
        self::assertSame(
            ['The limit for sign-offs: nothing → 500', 'The manager: Priya Lindqvist → Tomas Weld', 'The role: member → manager',
                'The team: Service Quayside → Service Hillgate'],
            collect(explode("\n", $this->as('ines.okafor', 'GET', "ledger/{$entry}")->assertOk()->json('entry.detail')))->sort()
                ->values()->all(),
        );
    }

    public function test_forgotten_passwords_fill_nobodys_letter_box(): void
    {
        Queue::fake();
        for ($times = 0; $times < 6; $times++) {
            $this->postJson('/api/password/forgotten', ['email' => 'lena.abara@larkmoss.example'])->assertNoContent();
        }
        Queue::assertCount(3);
        $this->postJson('/api/password/forgotten', ['email' => 'bram.castellan@larkmoss.example'])->assertNoContent();
        Queue::assertCount(4);
    }
}

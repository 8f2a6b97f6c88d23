<?php

declare(strict_types=1);

namespace Tests\App\Access;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\Cache;
use Illuminate\Testing\TestResponse;
use Tests\App\Support\AppTestCase;

/** Who is kept out, and what is: those who have left, guesses at passwords, what is too large, and too much at once. */
final class DoorsTest extends AppTestCase
{
    public function test_whoever_has_left_is_out_at_once(): void
    {
        $lena = $this->person('lena.abara');
        $token = $lena->createToken('nightly')->plainTextToken;
        $this->signIn('lena.abara@larkmoss.example')->assertOk();
        $this->getJson('/api/session', ['Origin' => config('app.url')])->assertOk();
        $feed = $this->actingAs($lena, 'sanctum')->postJson('/api/feed')->json('url');
        $this->forget();
        $this->withToken($token)->getJson('/api/session')->assertOk();

        $lena->forceFill(['active' => false])->save();
        $this->forget();
        $this->assertRefused($this->withToken($token)->getJson('/api/session'), 401, 'not_signed_in');
        $this->assertRefused($this->withToken($token)->postJson('/api/tokens', ['name' => 'one more']), 401, 'not_signed_in');
        $this->forget();
        $this->flushHeaders();
        $this->assertRefused($this->getJson('/api/session', ['Origin' => config('app.url')]), 401, 'not_signed_in');
        $this->get((string) parse_url($feed, PHP_URL_PATH))->assertNotFound();
        $this->assertRefused($this->signIn('lena.abara@larkmoss.example'), 422, 'wrong_password');
        self::assertSame(1, Artisan::call('ledger:token', ['person' => 'lena.abara', 'name' => 'x']));
    }

    public function test_guesses_count_for_the_account_that_is_meant(): void
    {
        foreach (['lena.abara', 'léna.abara', 'lena.ábara', 'LENA.ABARA', 'lënä.abara'] as $spelling) {
            $this->assertRefused($this->signIn("{$spelling}@larkmoss.example", 'guess'), 422, 'wrong_password', '/password');
        }
        $this->assertRefused($this->signIn('lenà.abara@larkmoss.example', 'guess'), 429, 'too_many_tries');
        $this->assertRefused($this->signIn('lena.abara@larkmoss.example'), 429, 'too_many_tries');
        $this->signIn('INES.okafor@larkmoss.example')->assertOk();
        Cache::flush();
        $this->assertRefused($this->signIn('léna.abara@larkmoss.example'), 422, 'wrong_password', '/password');
        // From one address nobody tries name after name, known or not, and signing in oneself frees no one else.
        for ($count = 0; $count < 29; $count++) {
            $this->assertRefused($this->signIn("nobody{$count}@larkmoss.example", 'guess'), 422, 'wrong_password', '/password');
        }
        $this->assertRefused($this->signIn('bram.castellan@larkmoss.example', 'guess'), 429, 'too_many_tries');
    }

    public function test_signing_in_from_elsewhere_is_told_how(): void
    {
        $given = ['email' => 'ines.okafor@larkmoss.example', 'password' => 'larkmoss'];
        $this->assertRefused($this->postJson('/api/session', $given), 400, 'no_session');
        $this->assertRefused(
            $this->postJson('/api/session', ['email' => ['a']] + $given, ['Origin' => config('app.url')]),
            422,
            'invalid_request',
            '/email',
        );
    }

    public function test_addresses_given_out_follow_no_forged_host(): void
    {
        $made = $this->actingAs($this->person('ines.okafor'), 'sanctum')->postJson(
            '/api/feed',
            [],
            ['Host' => 'evil.example'],
        )->assertCreated()->json('url');
        self::assertStringStartsWith(config('app.url').'/feed/', $made);
    }

    public function test_a_file_has_at_most_what_the_one_limit_says(): void
    {
        $ticket = $this->ticket()['record']['id'];
        $most = (int) config('limits.file_bytes');
        self::assertSame($most, $this->as('ines.okafor', 'GET', 'session')->json('fileBytes'));
        $put = fn (int $bytes): TestResponse => $this->post(
            "/api/records/ticket/{$ticket}/files",
            ['file' => UploadedFile::fake()->createWithContent('plan.txt', str_repeat('a', $bytes))],
        );
        $put($most)->assertCreated();
        $this->assertRefused($put($most + 1), 422, 'invalid_values', '/file');
    }

    public function test_one_person_has_only_a_few_long_reckonings_at_once(): void
    {
        $ines = $this->person('ines.okafor')->id;
        $rule = ['file' => $this->demoFile('010-urgent-ticket'), 'record' => ['pick' => 'made_up']];
        foreach ([1, 2, 3, 4] as $place) {
            Cache::lock("at-once:rehearsal:{$ines}:{$place}", 60)->get();
        }
        $this->assertRefused($this->as('ines.okafor', 'POST', 'rehearse', $rule), 429, 'too_many_at_once');
        $this->as('tomas.weld', 'POST', 'rehearse', $rule)->assertOk();
        Cache::lock("at-once:rehearsal:{$ines}:3", 60)->forceRelease();
        $this->as('ines.okafor', 'POST', 'rehearse', $rule)->assertOk();
        $this->as('ines.okafor', 'POST', 'rehearse', $rule)->assertOk();
    }

    /** Files that are taken out by many leave room at the door for those who work. */
    public function test_all_of_them_take_out_only_a_few_files_at_once(): void
    {
        $this->assertNotNull($this->as('ines.okafor', 'GET', 'ledger/file')->assertOk());
        foreach ([1, 2, 3] as $place) {
            Cache::lock("at-once:file:all:{$place}", 60)->get();
        }
        foreach (['ledger/file', 'records/ticket/file'] as $file) {
            $this->assertRefused($this->as('ines.okafor', 'GET', $file), 503, 'busy');
        }
        Cache::lock('at-once:file:all:2', 60)->forceRelease();
        $this->as('ines.okafor', 'GET', 'records/ticket/file')->assertOk();
    }
}
